import zlib from 'node:zlib';
import { digestOf, foresee, knownDigest, remembered } from './memory/memory.ts';
import { goOn } from './watch.ts';
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
  const texts = files.map(({ text }) => text);
  const hashes = files.map(({ path }) => hashOf(path));
  const sample = sampleOf(texts, hashes);
  const runs = runsOf(hashes);
  foresee((by) => by.added({ texts, runs, sample }));
  const added = addedOf(texts, sample);
  const after = texts.map((_, i) => {
    goOn('weighing files beside one another', i);
    return added.after(i);
  });
  const spared = sparedInRuns(runs, added.run, after);
  return files.map(({ text, gzip }, i) => {
    goOn('weighing files far from one another', i);
    // A file without anything in it is none.
    if (text === '') return { marginal: 0, distant: 0 };
    const marginal = Math.max(1, after[i] - spared[i]);
    const far = Math.min(gzip - HEADER, added.far(i)) - spared[i];
    return { marginal: Math.round(marginal), distant: Math.round(Math.max(marginal, far)) };
  });
}

/** What each of some texts comes to as a stream of its own, in bytes: `after` those before it in the list, `far` after the sample; and `run`: some that follow one another. */
export function addedOf(texts: readonly string[], drawn: Buffer) {
  const pieces = texts.map(pieceOf);
  const sample: Piece = { bytes: () => drawn, length: drawn.length, digest: `sample ${digestOf(drawn)}` };
  return {
    after: (i: number) => deflated(AFTER(pieces[i].digest), [pieces[i]], before(pieces, i)),
    far: (i: number) => deflated(FAR(pieces[i].digest), [pieces[i]], [sample]),
    run: (from: number, to: number) => {
      const own = pieces.slice(from, to);
      return deflated(RUN(own.map((p) => p.digest)), own, before(pieces, from));
    },
  };
}

/** What is asked of a text is known by these names, by its digest. */
export const AFTER = (digest: string): string => `after ${digest}`;
export const FAR = (digest: string): string => `far ${digest}`;
export const RUN = (digests: readonly string[]): string => (digests.length === 1 ? AFTER(digests[0]) : digests.join());

/** The first of the texts that the one at a place in the list may refer back to. */
export function windowBefore(texts: readonly string[], at: number): number {
  let from = at;
  for (let length = 0; from > 0 && length < WINDOW; ) length += Buffer.byteLength(texts[--from]) + 1;
  return from;
}

/** A text with a short name. Its bytes are made where they are needed, which is seldom where an earlier reading knew it. */
interface Piece {
  bytes: () => Buffer;
  /** In bytes. */
  length: number;
  digest: string;
}

function pieceOf(text: string): Piece {
  return {
    bytes: () => Buffer.from(`${text}\n`),
    length: Buffer.byteLength(text) + 1,
    digest: knownDigest(text),
  };
}

/** What pieces come to as one stream, in bytes, with those before them to refer to. `name`: of the pieces. */
function deflated(name: string, pieces: readonly Piece[], before: readonly Piece[]): number {
  return remembered('added', [name, before.map((p) => p.digest).join()], () => {
    const dictionary = Buffer.concat(before.map((p) => p.bytes())).subarray(-WINDOW);
    const options = dictionary.length > 0 ? { level: GZIP_LEVEL, dictionary } : { level: GZIP_LEVEL };
    return zlib.deflateRawSync(Buffer.concat(pieces.map((p) => p.bytes())), options).length;
  });
}

/** The pieces before one, as far as a stream refers back. */
function before(pieces: readonly Piece[], at: number): Piece[] {
  let from = at;
  for (let length = 0; from > 0 && length < WINDOW; ) length += pieces[--from].length;
  return pieces.slice(from, at);
}

/** About so many texts make a run. */
const RUN_LENGTH = 16;
/** What of a text’s size can be its table of codes, at most: about so much a table takes. */
const TABLE = 120;

type Run = readonly [from: number, to: number];

function runsOf(hashes: readonly number[]): Run[] {
  const runs: Run[] = [];
  for (let from = 0, to = 1; from < hashes.length; from = to++) {
    while (to < hashes.length && hashes[to - 1] % RUN_LENGTH !== 0) to++;
    runs.push([from, to]);
  }
  return runs;
}

/** What each text is spared by being compressed in one run with its neighbours. */
function sparedInRuns(
  runs: readonly Run[],
  sizeOf: (from: number, to: number) => number,
  after: readonly number[],
): number[] {
  const spared: number[] = [];
  for (const [at, [from, to]] of runs.entries()) {
    goOn('weighing runs of files', at);
    const each = after.slice(from, to);
    const saved = each.reduce((sum, n) => sum + n, 0) - sizeOf(from, to);
    const tables = each.map((n) => Math.min(n, TABLE));
    const all = tables.reduce((sum, n) => sum + n, 0);
    spared.push(...tables.map((n) => (all === 0 ? 0 : (saved * n) / all)));
  }
  return spared;
}

/** So many texts are drawn, and of each so much at most. */
const SAMPLES = 80;
const LONGEST_SAMPLE = 400;

/** Beginnings of texts from all over an app, as far as a stream refers back. */
function sampleOf(texts: readonly string[], hashes: readonly number[]): Buffer {
  const drawn = texts.map((_, i) => i).sort((a, b) => hashes[a] - hashes[b] || a - b);
  const parts = drawn.slice(0, SAMPLES).map((i) => Buffer.from(`${texts[i]}\n`).subarray(0, LONGEST_SAMPLE));
  return Buffer.concat(parts).subarray(-WINDOW);
}

function hashOf(path: string): number {
  return Buffer.from(knownDigest(path), 'base64').readUInt32BE(0);
}
