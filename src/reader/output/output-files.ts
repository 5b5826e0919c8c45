import fs from 'node:fs';
import path from 'node:path';
import type { Failed } from '../../core/snapshot/types.ts';
import { fileOfAddress } from '../../core/text/address.ts';
import { reasonOf, textInside, Unreadable } from '../folder-files.ts';
import { beginFile, leftAside } from '../watch.ts';
import { weigh } from '../weigh.ts';
import { type AskedFiles, type AskingScript, askingScript } from './asked-files.ts';
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
  asked: AskedFiles;
}

/** A file before it is known which others there are. */
export type ReadFile = Omit<OutputFile, 'asked'> & {
  /** How it asks for others; null for what is no script. */
  script: AskingScript | null;
};

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

/** Reads one file with its map. */
export function readOutputFile(root: string, file: string, failed: Failed[]): ReadFile {
  beginFile(file);
  const whole = textOf(root, file, failed);
  const kind = file.endsWith('.css') ? 'style' : 'script';
  const address = mapAddress(whole);
  const { map, inlineMapBytes } = mapOf(root, file, whole, address, failed);
  const { minified, gzip, brotli } = weigh(whole);
  const code = address === null ? whole : whole.slice(0, whole.lastIndexOf('sourceMappingURL='));
  const script = /\.m?js$/.test(file) ? scriptOf(file, code, failed) : null;
  return { path: file, kind, text: whole, bytes: { minified, gzip, brotli }, map, inlineMapBytes, script };
}

/** Walkers go down a tree by calling themselves: what a script asks for that is too deep for them isn't known. */
function scriptOf(file: string, code: string, failed: Failed[]): AskingScript | null {
  try {
    return askingScript(file, code);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    const message = 'it is nested too deeply to be followed; what it asks for is not known';
    failed.push({ path: file, line: 1, message });
    return null;
  }
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
      address === null ? `${path.basename(file)}.map` : fileOfAddress(address),
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
