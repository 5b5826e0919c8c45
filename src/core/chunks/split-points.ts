import type { Snapshot } from '../snapshot/types.ts';
import type { ChunkGraph } from './types.ts';

/** Paths of the targets of the split points and route pieces that need a chunk; an entry is none. */
export function splitPointsOf(snapshot: Snapshot, graph: ChunkGraph, chunk: number): string[] {
  return graph.chunks[chunk].roots
    .map((r) => graph.roots[r])
    .filter((r) => r.kind !== 'entry' && r.kind !== 'worker')
    .map((r) => snapshot.modules[r.target[0]].path);
}
