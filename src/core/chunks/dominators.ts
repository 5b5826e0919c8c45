import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { postOrder } from './reach.ts';

export interface DominatorTree {
  /** Modules in reverse post-order of a depth-first walk from the starts. */
  order: Uint32Array;
  /** module → position in `order`, −1 when not reached. */
  number: Int32Array;
  /** Immediate dominator as a position in `order`; −1 = the super-root. */
  parent: Int32Array;
  /** Whether position a dominates position b (every path to b passes a; a dominates itself). */
  dominates(a: number, b: number): boolean;
}

/**
 * Dominator tree of the static imports reachable from the starts, which hang from one super-root. The iterative
 * method of Cooper, Harvey and Kennedy ("A Simple, Fast Dominance Algorithm", 2001): quick on import graphs,
 * whose cycles are few.
 */
export function dominatorTree(
  snapshot: Snapshot,
  index: GraphIndex,
  deferred: Uint8Array,
  starts: readonly number[],
): DominatorTree {
  const order = Uint32Array.from(postOrder(index, deferred, starts)).reverse();
  const count = order.length;
  const number = new Int32Array(snapshot.modules.length).fill(-1);
  for (let v = 0; v < count; v++) number[order[v]] = v;
  const isStart = new Uint8Array(count);
  for (const m of starts) isStart[number[m]] = 1;

  const unknown = -2;
  const parent = new Int32Array(count).fill(unknown);
  const common = (a: number, b: number): number => {
    let x = a;
    let y = b;
    while (x !== y) {
      while (x > y) x = parent[x];
      while (y > x) y = parent[y];
    }
    return x;
  };
  for (let changed = true; changed; ) {
    changed = false;
    for (let v = 0; v < count; v++) {
      let now = isStart[v] ? -1 : unknown;
      if (now === unknown) {
        const m = order[v];
        for (let e = index.inStart[m]; e < index.inStart[m + 1]; e++) {
          const i = index.incoming[e];
          const p = number[snapshot.imports[i].from];
          if (deferred[i] || p < 0 || parent[p] === unknown) continue;
          now = now === unknown ? p : common(now, p);
          if (now === -1) break;
        }
      }
      if (now !== parent[v]) {
        parent[v] = now;
        changed = true;
      }
    }
  }

  const { enter, leave } = intervals(parent);
  return { order, number, parent, dominates: (a, b) => enter[a] <= enter[b] && leave[b] <= leave[a] };
}

/** Entry and exit numbers of a walk over the tree: a is above b when b's interval lies in a's. */
function intervals(parent: Int32Array): { enter: Int32Array; leave: Int32Array } {
  const count = parent.length;
  const size = new Int32Array(count).fill(1);
  for (let v = count - 1; v >= 0; v--) if (parent[v] >= 0) size[parent[v]] += size[v];
  const enter = new Int32Array(count);
  const leave = new Int32Array(count);
  const nextFree = new Int32Array(count);
  let top = 0;
  for (let v = 0; v < count; v++) {
    const p = parent[v];
    if (p < 0) {
      enter[v] = top;
      top += size[v];
    } else {
      enter[v] = nextFree[p];
      nextFree[p] += size[v];
    }
    leave[v] = enter[v] + size[v];
    nextFree[v] = enter[v] + 1;
  }
  return { enter, leave };
}
