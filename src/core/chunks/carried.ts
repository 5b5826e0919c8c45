import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { dominatorTree } from './dominators.ts';

/** Carried weight over the start set of one landing. */
export interface Carried {
  /** Minified bytes of the start set. */
  startBytes: number;
  /** Modules of the start set, in an order in which dominators come first. */
  modules: Uint32Array;
  /** Per module of the snapshot: bytes that leave the start set if all its imports are detached; −1 outside the set. */
  ofModule: Float64Array;
  /** Bytes that leave if the given importer's imports of the target are detached (parallel imports count as one). */
  ofImport(from: number, to: number): number;
}

/**
 * Carried weight of every import and module of a landing, from the dominator tree of its start set. `starts` are
 * the modules that the landing itself asks for (entry, layouts, page); they can't leave. Near-linear time.
 */
export function carriedWeights(
  snapshot: Snapshot,
  index: GraphIndex,
  deferred: Uint8Array,
  starts: readonly number[],
): Carried {
  const tree = dominatorTree(snapshot, index, deferred, starts);
  const { order, number, parent } = tree;
  const weight = new Float64Array(order.length);
  for (let v = order.length - 1; v >= 0; v--) {
    weight[v] += snapshot.modules[order[v]].bytes.minified;
    if (parent[v] >= 0) weight[parent[v]] += weight[v];
  }
  let startBytes = 0;
  for (const m of order) startBytes += snapshot.modules[m].bytes.minified;

  const isStart = new Uint8Array(snapshot.modules.length);
  for (const m of starts) isStart[m] = 1;
  const ofModule = new Float64Array(snapshot.modules.length).fill(-1);
  for (let v = 0; v < order.length; v++) ofModule[order[v]] = isStart[order[v]] ? 0 : weight[v];

  const ofImport = (from: number, to: number): number => {
    const v = number[to];
    if (v < 0 || number[from] < 0 || isStart[to] || tree.dominates(v, number[from])) return 0;
    for (let e = index.inStart[to]; e < index.inStart[to + 1]; e++) {
      const i = index.incoming[e];
      const other = snapshot.imports[i].from;
      if (deferred[i] || other === from || number[other] < 0) continue;
      if (!tree.dominates(v, number[other])) return 0;
    }
    return weight[v];
  };
  return { startBytes, modules: order, ofModule, ofImport };
}
