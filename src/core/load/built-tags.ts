import type { BuiltOutput } from '../snapshot/output-types.ts';
import type { Files } from './files.ts';
import type { Landing } from './landing.ts';
import { type Draft, styleLink } from './tag.ts';

/** Beyond this share of the document a script tag counts as standing at the end of its body. */
const END = 0.5;

/**
 * The tags of a production output's own document for a landing, in its order; then those files of the start that a
 * plan adds. A module script brings its static imports, each found when the file that imports it has come.
 */
export function builtTags(output: BuiltOutput, landing: Landing, files: Files): { head: Draft[]; body: Draft[] } {
  const { realm } = landing.route;
  const entry = files.groups[files.groupOf(landing.entry)];
  const start = output.starts.find((s) => s.realm === realm);
  const length = Math.max(1, ...(start?.tags.map((t) => t.offset) ?? []));
  const resourceOf = (file: number) => {
    const chunk = files.chunkNamed(output.files[file].path, realm);
    return chunk < 0 ? -1 : files.chunk(chunk, 'start');
  };
  const placed = new Set<number>();
  const out: { head: Draft[]; body: Draft[] } = { head: [], body: [] };
  for (const { file, placement, offset } of start?.tags ?? []) {
    const resource = resourceOf(file);
    if (resource < 0 || placed.has(resource)) continue;
    placed.add(resource);
    const late = placement === 'blocking' && offset > length * END;
    if (placement === 'style') out.head.push(...styleLink(files, resource));
    else (late ? out.body : out.head).push({ tag: 'script', group: scriptGroup(file, resource), mode: placement });
  }
  for (const resource of entry?.resources ?? []) {
    if (placed.has(resource)) continue;
    const style = styleLink(files, resource);
    out.head.push(
      ...(style.length ? style : [{ tag: 'script', group: files.single(resource), mode: 'defer' } as const]),
    );
  }
  return out;

  function scriptGroup(file: number, resource: number): number {
    const resources = importedFirst(file, new Set());
    for (const r of resources) placed.add(r);
    if (resources.length <= 1) return files.single(resource);
    const name = files.resources[resource].name;
    return files.groups.push({ name, resources, after: [], loader: 'discovered' }) - 1;
  }

  /** A file after all that it imports at once; each of them knows what it leads to. */
  function importedFirst(file: number, seen: Set<number>): number[] {
    if (seen.has(file)) return [];
    seen.add(file);
    const own = resourceOf(file);
    const next = output.files[file].imports.filter((i) => i.kind === 'static').map((i) => i.to);
    if (own >= 0) files.resources[own].imports = next.map(resourceOf).filter((r) => r >= 0);
    return [...next.flatMap((f) => importedFirst(f, seen)), ...(own >= 0 ? [own] : [])];
  }
}
