import { createHash } from 'node:crypto';
import zlib from 'node:zlib';
import { GZIP_LEVEL } from './weigh.ts';

/** How far back a gzip stream refers, in bytes. */
const WINDOW = 32 * 1024;

/** What a gzip file has around its stream. */
const HEADER = 18;

/** A file of an app with what ships of it. */
export interface Weighed {
  path: string;
  text: string;
  /** Its gzip size alone, in bytes. */
  gzip: number;
}

/** What a text adds to a gzip stream, in bytes. */
export interface Added {
  /** When it follows the ones before it in the list. */
  marginal: number;
  /** When it follows other texts of the list, none of them near. */
  distant: number;
}

/**
 * What each text adds to a compressed file of many, in the order of the list. Compressed alone, even with the texts before
 * it to refer to, each pays for a table of codes of its own, which in one file it shares: so runs of texts are
 * compressed as one, and what that saves is taken off its texts. Runs end and samples are taken by the hash of the paths, so that a change of
 * one file changes what its neighbours add, and no others.
 */
export function addedSizes(files: readonly Weighed[]): Added[] {
  const bytes = files.map(({ text }) => Buffer.from(`${text}\n`));
  const hashes = files.map(({ path }) => hashOf(path));
  const sample = sampleOf(bytes, hashes);
  const after = alongside(bytes);
  const spared = sparedInRuns(bytes, hashes, after);
  return files.map(({ text, gzip }, i) => {
    // A file without anything in it is none.
    if (text === '') return { marginal: 0, distant: 0 };
    const marginal = Math.max(1, after[i] - spared[i]);
    const far = Math.min(gzip - HEADER, deflated(bytes[i], sample)) - spared[i];
    return { marginal: Math.round(marginal), distant: Math.round(Math.max(marginal, far)) };
  });
}

const EMPTY = Buffer.alloc(0);

function deflated(bytes: Buffer, before: Buffer): number {
  const options = before.length > 0 ? { level: GZIP_LEVEL, dictionary: before } : { level: GZIP_LEVEL };
  return zlib.deflateRawSync(bytes, options).length;
}

/** Each text with the last 32 kB before it to refer to. */
function alongside(bytes: readonly Buffer[]): number[] {
  let before: Buffer = EMPTY;
  return bytes.map((b) => {
    const size = deflated(b, before);
    before = Buffer.concat([before, b]).subarray(-WINDOW);
    return size;
  });
}

/** About so many texts make a run. */
const RUN = 16;
/** What of a text’s size can be its table of codes, at most: about so much a table takes. */
const TABLE = 120;

/** What each text is spared by being compressed in one run with its neighbours. */
function sparedInRuns(bytes: readonly Buffer[], hashes: readonly number[], after: readonly number[]): number[] {
  const spared: number[] = [];
  let before: Buffer = EMPTY;
  for (let from = 0, to = 1; from < bytes.length; from = to++) {
    while (to < bytes.length && hashes[to - 1] % RUN !== 0) to++;
    const run = Buffer.concat(bytes.slice(from, to));
    const each = after.slice(from, to);
    const saved = each.reduce((sum, n) => sum + n, 0) - deflated(run, before);
    const tables = each.map((n) => Math.min(n, TABLE));
    const all = tables.reduce((sum, n) => sum + n, 0);
    spared.push(...tables.map((n) => (all === 0 ? 0 : (saved * n) / all)));
    before = Buffer.concat([before, run]).subarray(-WINDOW);
  }
  return spared;
}

/** So many texts are drawn, and of each so much at most. */
const SAMPLES = 80;
const LONGEST_SAMPLE = 400;

/** Beginnings of texts from all over an app, as far as a stream refers back. */
function sampleOf(bytes: readonly Buffer[], hashes: readonly number[]): Buffer {
  const drawn = bytes.map((_, i) => i).sort((a, b) => hashes[a] - hashes[b] || a - b);
  const parts = drawn.slice(0, SAMPLES).map((i) => bytes[i].subarray(0, LONGEST_SAMPLE));
  return Buffer.concat(parts).subarray(-WINDOW);
}

function hashOf(path: string): number {
  return createHash('sha1').update(path).digest().readUInt32BE(0);
}
