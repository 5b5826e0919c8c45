import type { Snapshot } from '../snapshot/types.ts';
import type { Chunk } from './types.ts';

/** What each module of a chunk has of its bytes, loader and wrappers included, so that the shares add up to the chunk. */
export interface Share {
  module: number;
  minified: number;
  compressed: number;
}

/**
 * Divides a chunk's bytes among its modules: minified bytes by theirs, compressed bytes by what each adds to its
 * neighbours. What the file has beside them (loader, wrappers, one stream for all) is divided alike.
 */
export function apportion(snapshot: Snapshot, chunk: Chunk): Share[] {
  const { modules } = snapshot;
  let minified = 0;
  let compressed = 0;
  for (const m of chunk.modules) {
    minified += modules[m].bytes.minified;
    compressed += modules[m].bytes.marginal;
  }
  const even = 1 / chunk.modules.length;
  return chunk.modules.map((module) => {
    const { bytes } = modules[module];
    return {
      module,
      minified: chunk.bytes.minified * (minified > 0 ? bytes.minified / minified : even),
      compressed: chunk.bytes.gzip * (compressed > 0 ? bytes.marginal / compressed : even),
    };
  });
}
