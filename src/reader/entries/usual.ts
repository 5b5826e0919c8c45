import fs from 'node:fs';
import path from 'node:path';
import type { FoundEntry, FoundStart, PackageDescription } from './types.ts';

/** Where apps start by habit, as far as nothing says otherwise. */
export const USUAL = ['main', 'index', 'app', 'client', 'entry'].flatMap((name) =>
  ['tsx', 'ts', 'jsx', 'js', 'mjs'].flatMap((extension) => [`src/${name}.${extension}`, `${name}.${extension}`]),
);

/** Where builds that write the script into a document have that document by habit, the likeliest first. */
const TEMPLATES = ['public/index.html', 'index.html', 'src/index.html', 'app/index.html', 'static/index.html'];

/** The entry module that the package names, else the usual one that is there. */
export function usualModule(root: string, description: PackageDescription): string | undefined {
  const named = [description.module, description.main].filter((m): m is string => typeof m === 'string');
  return [...named, ...USUAL].find(
    (f) => fs.existsSync(path.join(root, f)) && fs.statSync(path.join(root, f)).isFile(),
  );
}

/** Files as one entry, in the document into which a build writes their script, where one is there. */
export function fromModules(files: readonly string[], documents: readonly FoundEntry[]): FoundEntry {
  const own = files.map(
    (f): FoundStart => ({
      ...{ address: `/${f}`, line: 1 },
      kind: /\.css$/.test(f) ? 'style' : 'script',
    }),
  );
  const around = TEMPLATES.flatMap((t) => documents.find((d) => d.document === t) ?? []).find(
    (d) => d.starts.every((s) => s.kind === 'style') && !files.some((f) => runs(d, f)),
  );
  return {
    ...{ realm: 'site', document: around?.document ?? null, html: around?.html ?? null },
    starts: [...(around?.starts ?? []), ...own],
    ...{ routes: [], rendering: 'client', ships: 'everything' },
  };
}

/** Whether a document runs a file of the folder by a tag of its own. */
export function runs({ html }: FoundEntry, file: string): boolean {
  return html?.tags.some((t) => path.posix.normalize(t.address.replace(/^\/+/, '')) === file) ?? false;
}
