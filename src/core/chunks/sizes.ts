import { graphIndex } from '../snapshot/graph-index.ts';
import type { ModuleBytes } from '../snapshot/module-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { ChunkBytes } from './types.ts';

/**
 * What a chunk costs beside its modules, in bytes. Assumptions about a typical output, not measurements of one:
 * a loader once per entry, a wrapper per module, and in the entry a map with one line per deferred chunk.
 */
export const OVERHEAD = {
  loader: { minified: 900, gzip: 450 },
  wrapper: { minified: 12, gzip: 4 },
  mapLine: { minified: 24, gzip: 12 },
} as const;

/**
 * How near another module is, in bytes of the order of paths: twice as far as a gzip stream refers back, since a chunk leaves out some
 * of what lies between.
 */
const NEAR = 64 * 1024;

/** With this share of the neighbourhood there (11 kB), a module gains as much as from all of it. */
const ENOUGH = 1 / 6;
/** After so many bytes, whatever they are, a stream knows the words and shapes that all code has. */
const WORDS = 8 * 1024;
/** Where nobody measured what a module adds far from its neighbours: this share of what it is spared by their side. */
const DISTANT = 0.3;

/**
 * Live estimate of a chunk's sizes. What a module adds was measured after its neighbours in the order of paths, and after
 * other code of the app. As far as its neighbours travel in other chunks, it adds what it does after other code; at the
 * beginning of a chunk, what it takes alone. `node script/sizes.mjs` lays it beside exact sizes, which need the text and are made on demand by the
 * reader.
 */
export function estimateBytes(snapshot: Snapshot, modules: readonly number[]): ChunkBytes {
  const { before, source, minified, gzip, brotli, marginal, distant } = columnsOf(snapshot);
  const { rank, sorted } = graphIndex(snapshot);
  const sum: ChunkBytes = { source: 0, minified: 0, gzip: 0, brotli: 0 };
  let alone = 0;
  // Ranks sort faster than modules by their rank.
  const ordered = Uint32Array.from(modules, (m) => rank[m]).sort();
  for (let at = 0; at < ordered.length; at++) ordered[at] = sorted[ordered[at]];
  let oldest = 0;
  let near = 0;
  let all = 0;
  for (let at = 0; at < ordered.length; at++) {
    const m = ordered[at];
    const place = before[m];
    const from = Math.max(0, place - NEAR);
    while (oldest < at && before[ordered[oldest]] + minified[ordered[oldest]] <= from)
      near -= minified[ordered[oldest++]];
    const cut = oldest < at ? Math.max(0, from - before[ordered[oldest]]) : 0;
    const share = place === 0 ? 1 : Math.min(1, (near - cut) / (place - from) / ENOUGH);
    sum.source += source[m];
    sum.minified += minified[m];
    sum.brotli += brotli[m];
    alone += gzip[m];
    const known = Math.min(1, all / WORDS);
    const apart = known * distant[m] + (1 - known) * Math.max(distant[m], gzip[m] - HEADER);
    sum.gzip += at === 0 ? gzip[m] : marginal[m] + (1 - share) * (apart - marginal[m]);
    near += minified[m];
    all += minified[m];
  }
  sum.gzip = Math.round(sum.gzip);
  if (alone > 0) sum.brotli = Math.round((sum.brotli * sum.gzip) / alone);
  return sum;
}

/** What a gzip file has around its stream, and each file alone has once. */
const HEADER = 18;

interface Columns {
  /** Minified bytes of its kind (styles, or all else) that come before a module in the order of paths. */
  before: Float64Array;
  source: Float64Array;
  minified: Float64Array;
  gzip: Float64Array;
  brotli: Float64Array;
  marginal: Float64Array;
  distant: Float64Array;
}

const cache = new WeakMap<Snapshot, Columns>();

/** Sizes of all modules as columns, which are much quicker to add up than objects. */
function columnsOf(snapshot: Snapshot): Columns {
  const cached = cache.get(snapshot);
  if (cached) return cached;
  const { modules } = snapshot;
  const column = (of: (bytes: ModuleBytes) => number) => Float64Array.from(modules, (m) => of(m.bytes));
  const before = new Float64Array(modules.length);
  const sums = [0, 0];
  for (const m of graphIndex(snapshot).sorted) {
    const kind = modules[m].kind === 'style' ? 1 : 0;
    before[m] = sums[kind];
    sums[kind] += modules[m].bytes.minified;
  }
  const made: Columns = {
    before,
    source: column((b) => b.source),
    minified: column((b) => b.minified),
    gzip: column((b) => b.gzip),
    brotli: column((b) => b.brotli),
    marginal: column((b) => b.marginal),
    distant: column((b) => Math.max(b.marginal, b.distant ?? b.marginal + DISTANT * (b.gzip - HEADER - b.marginal))),
  };
  cache.set(snapshot, made);
  return made;
}

/** Bytes that a build puts around the modules of a script chunk; an assumption, see OVERHEAD. */
export function overheadOf(
  modules: number,
  isEntry: boolean,
  deferredChunks: number,
): { minified: number; gzip: number } {
  const minified = modules * OVERHEAD.wrapper.minified;
  const gzip = modules * OVERHEAD.wrapper.gzip;
  if (!isEntry) return { minified, gzip };
  return {
    minified: minified + OVERHEAD.loader.minified + deferredChunks * OVERHEAD.mapLine.minified,
    gzip: gzip + OVERHEAD.loader.gzip + deferredChunks * OVERHEAD.mapLine.gzip,
  };
}
