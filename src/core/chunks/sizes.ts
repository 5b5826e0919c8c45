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
 * Live estimate of a chunk's sizes: the first module compressed alone, the others by what each adds to a stream
 * when it follows its neighbours. Exact sizes need the text and are made on demand by the reader.
 */
export function estimateBytes(snapshot: Snapshot, modules: readonly number[]): ChunkBytes {
  const sum: ChunkBytes = { source: 0, minified: 0, gzip: 0, brotli: 0 };
  let alone = 0;
  modules.forEach((m, at) => {
    const { bytes } = snapshot.modules[m];
    sum.source += bytes.source;
    sum.minified += bytes.minified;
    sum.brotli += bytes.brotli;
    alone += bytes.gzip;
    sum.gzip += at === 0 ? bytes.gzip : bytes.marginal;
  });
  if (alone > 0) sum.brotli = Math.round((sum.brotli * sum.gzip) / alone);
  return sum;
}

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
