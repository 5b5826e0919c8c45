import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { type Bits, has } from './bits.ts';
import { dominatorTree } from './dominators.ts';

/** An amount of code: minified, and what that is about on the wire in the company of the rest. */
export interface Weight {
  minified: number;
  compressed: number;
}

/** Carried weight over the start set of one landing. */
export interface Carried {
  /** All of the start set. */
  start: Weight;
  /** Modules of the start set, in an order in which dominators come first. */
  modules: Uint32Array;
  /** What leaves the start set if all imports of a module are detached; null outside the set, nothing for a start. */
  ofModule(module: number): Weight | null;
  /** What leaves if the importer's imports of the target are detached (parallel imports count as one). */
  ofImport(from: number, to: number): Weight;
}

const NOTHING: Weight = { minified: 0, compressed: 0 };

/**
 * Carried weight of every import and module of a landing, from the dominator tree of its start set. `starts` are
 * the modules that the landing itself asks for (entry, layouts, page); they can't leave. What is `present` already weighs
 * nothing: so the same is told of the load group of a split point. Near-linear time.
 */
export function carriedWeights(
  snapshot: Snapshot,
  index: GraphIndex,
  deferred: Uint8Array,
  starts: readonly number[],
  present: Bits | null = null,
): Carried {
  const tree = dominatorTree(snapshot, index, deferred, starts);
  const { order, number, parent } = tree;
  const minified = new Float64Array(order.length);
  const compressed = new Float64Array(order.length);
  const start: Weight = { minified: 0, compressed: 0 };
  for (let v = order.length - 1; v >= 0; v--) {
    const { bytes } = snapshot.modules[order[v]];
    if (present === null || !has(present, order[v])) {
      start.minified += bytes.minified;
      start.compressed += bytes.marginal;
      minified[v] += bytes.minified;
      compressed[v] += bytes.marginal;
    }
    if (parent[v] < 0) continue;
    minified[parent[v]] += minified[v];
    compressed[parent[v]] += compressed[v];
  }
  const isStart = new Uint8Array(snapshot.modules.length);
  for (const m of starts) isStart[m] = 1;
  const below = (v: number): Weight => ({ minified: minified[v], compressed: compressed[v] });

  const ofImport = (from: number, to: number): Weight => {
    const v = number[to];
    if (v < 0 || number[from] < 0 || isStart[to] || tree.dominates(v, number[from])) return NOTHING;
    for (let e = index.inStart[to]; e < index.inStart[to + 1]; e++) {
      const i = index.incoming[e];
      const other = snapshot.imports[i].from;
      if (deferred[i] || other === from || number[other] < 0) continue;
      if (!tree.dominates(v, number[other])) return NOTHING;
    }
    return below(v);
  };
  const ofModule = (m: number) => (number[m] < 0 ? null : isStart[m] ? NOTHING : below(number[m]));
  return { start, modules: order, ofModule, ofImport };
}
