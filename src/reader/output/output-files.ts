import fs from 'node:fs';
import path from 'node:path';
import type { Failed } from '../../core/snapshot/types.ts';
import { withoutQuery } from '../../core/text/address.ts';
import { reasonOf, textInside, Unreadable } from '../folder-files.ts';
import { parse } from '../script/parse.ts';
import { SourceText } from '../source-text.ts';
import { beginFile, leftAside } from '../watch.ts';
import { weigh } from '../weigh.ts';
import { inlineMap, type MapReading, mapAddress, readMap } from './source-map.ts';

/** A script or style file of an output, read. */
export interface OutputFile {
  path: string;
  kind: 'script' | 'style';
  text: string;
  bytes: { minified: number; gzip: number; brotli: number };
  map: MapReading | null;
  /** Bytes of a map inside of the file; they travel with it. */
  inlineMapBytes: number;
  /** Where it asks for other files, by path. */
  imports: { to: string; kind: 'static' | 'dynamic'; line: number }[];
}

/** The text of a file; one that can't be read counts as empty and is listed. */
function textOf(root: string, file: string, failed: Failed[]): string {
  try {
    const aside = leftAside(file);
    if (aside !== undefined) throw new Unreadable(aside);
    return textInside(root, file);
  } catch (error) {
    failed.push({ path: file, line: 1, message: `not read: ${reasonOf(error)}` });
    return '';
  }
}

/** Reads one file with its map and the files that it names. */
export function readOutputFile(root: string, file: string, byName: NamedFiles, failed: Failed[]): OutputFile {
  beginFile(file);
  const whole = textOf(root, file, failed);
  const kind = file.endsWith('.css') ? 'style' : 'script';
  const address = mapAddress(whole);
  const { map, inlineMapBytes } = mapOf(root, file, whole, address, failed);
  const { minified, gzip, brotli } = weigh(0, whole);
  const code = address === null ? whole : whole.slice(0, whole.lastIndexOf('sourceMappingURL='));
  const imports = kind === 'script' ? importsOf(file, code, byName) : [];
  return { path: file, kind, text: whole, bytes: { minified, gzip, brotli }, map, inlineMapBytes, imports };
}

function mapOf(
  root: string,
  file: string,
  text: string,
  address: string | null,
  failed: Failed[],
): { map: MapReading | null; inlineMapBytes: number } {
  const none = { map: null, inlineMapBytes: 0 };
  const trouble = (message: string) => {
    failed.push({ path: file, line: text.split('\n').length, message });
    return none;
  };
  try {
    const inside = address === null ? null : inlineMap(address);
    if (inside !== null) return { map: checked(readMap(inside, text), file, failed), inlineMapBytes: address!.length };
    const beside = path.join(
      root,
      path.dirname(file),
      address === null ? `${path.basename(file)}.map` : decodeURI(address),
    );
    if (!beside.startsWith(root + path.sep))
      return trouble(`its map ${named(address)} lies outside of the folder; it is left aside`);
    if (!fs.existsSync(beside))
      return address === null ? none : trouble(`its map ${named(address)} isn't there; the file counts as one module`);
    return { map: checked(readMap(textInside(root, beside), text), file, failed), inlineMapBytes: 0 };
  } catch (error) {
    return trouble(`its map is broken (${(error as Error).message}); the file counts as one module. Build it again.`);
  }
}

/** An address as it stands in a message: it may be as long as the file. */
function named(address: string | null): string {
  return address !== null && address.length > 200 ? `${address.slice(0, 200)}…` : `${address}`;
}

/** So few stray mappings are usual; the sizes hardly change. */
const FEW = 0.01;

function checked(map: MapReading, file: string, failed: Failed[]): MapReading {
  if (map.outside > map.mappings * FEW) {
    const message = `${map.outside} of ${map.mappings} mappings of its map point outside of the file or to a source that isn't there; they are left aside. The map may belong to another build.`;
    failed.push({ path: file, line: 1, message });
  }
  return map;
}

/** Finds the file that a text inside another file means. */
export class NamedFiles {
  private readonly byName = new Map<string, string[]>();

  constructor(files: readonly string[]) {
    for (const file of files) {
      const name = path.posix.basename(file);
      this.byName.set(name, [...(this.byName.get(name) ?? []), file]);
    }
  }

  /** Relative specifiers are resolved; anything else has to end like the path of exactly one file, or hold it. */
  find(written: string, from: string): string | null {
    const bare = withoutQuery(written);
    const candidates = this.byName.get(path.posix.basename(bare)) ?? [];
    if (/^\.{1,2}\//.test(bare)) {
      const target = path.posix.join(path.posix.dirname(from), bare);
      return candidates.includes(target) ? target : null;
    }
    const own = bare.replace(/^\/+/, '');
    const fits = candidates.filter((c) => c !== from && (`/${c}`.endsWith(`/${own}`) || `/${own}`.endsWith(`/${c}`)));
    return fits.length === 1 ? fits[0] : null;
  }
}

const NAMED = /["'`]([^"'`\s]{1,300}\.(?:m?js|css))["'`]/g;

/**
 * What a script asks for: imports where it is an ES module, else every file that a text in it names, since a loader of
 * another kind has to name what it loads.
 */
function importsOf(file: string, code: string, byName: NamedFiles): OutputFile['imports'] {
  const found: OutputFile['imports'] = [];
  const source = new SourceText(code);
  const add = (written: string, kind: 'static' | 'dynamic', at: number) => {
    const to = byName.find(written, file);
    if (to !== null && to !== file && !found.some((f) => f.to === to && f.kind === kind))
      found.push({ to, kind, line: source.place(at).line });
  };
  const { module } = parse(file, code, { lang: 'js' });
  for (const item of module.staticImports) add(item.moduleRequest.value, 'static', item.start);
  for (const item of module.staticExports)
    for (const e of item.entries) if (e.moduleRequest) add(e.moduleRequest.value, 'static', item.start);
  for (const item of module.dynamicImports) {
    const { start, end } = item.moduleRequest;
    const constant = /^(["'`])([^"'`$]*)\1$/.exec(code.slice(start, end));
    if (constant) add(constant[2], 'dynamic', item.start);
  }
  if (module.staticImports.length + module.dynamicImports.length === 0)
    for (const named of code.matchAll(NAMED)) add(named[1], 'dynamic', named.index);
  return found;
}
