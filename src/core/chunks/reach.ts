import type { GraphIndex } from '../snapshot/graph-index.ts';

/** Walks static imports under a plan. One walker is reused for many starts: its marks are versioned, not cleared. */
export class Reacher {
  private readonly mark: Uint32Array;
  private readonly stack: number[] = [];
  private version = 0;

  constructor(
    private readonly index: GraphIndex,
    private readonly deferred: Uint8Array,
  ) {
    this.mark = new Uint32Array(index.rank.length);
  }

  /** Modules reachable from the starts over static imports, the starts included, in no particular order. */
  from(starts: readonly number[]): Uint32Array {
    const version = ++this.version;
    const { mark, stack, deferred } = this;
    const { outStart, outgoing, target } = this.index;
    const found: number[] = [];
    for (const m of starts) {
      if (mark[m] === version) continue;
      mark[m] = version;
      stack.push(m);
    }
    while (stack.length > 0) {
      const m = stack.pop()!;
      found.push(m);
      for (let e = outStart[m]; e < outStart[m + 1]; e++) {
        const i = outgoing[e];
        if (deferred[i]) continue;
        const to = target[i];
        if (mark[to] === version) continue;
        mark[to] = version;
        stack.push(to);
      }
    }
    return Uint32Array.from(found);
  }
}

/**
 * Depth-first post-order of static imports from the starts, taken one after another in the order given: the order
 * in which the modules are evaluated. Cycles are entered once, as the platform does.
 */
export function postOrder(index: GraphIndex, deferred: Uint8Array, starts: Iterable<number>): Uint32Array {
  const size = index.rank.length;
  const entered = new Uint8Array(size);
  const { outStart, outgoing, target } = index;
  const post = new Uint32Array(size);
  const path = new Uint32Array(size);
  const cursor = outStart.slice();
  let done = 0;
  for (const start of starts) {
    if (entered[start]) continue;
    entered[start] = 1;
    path[0] = start;
    for (let depth = 0; depth >= 0; ) {
      const m = path[depth];
      const e = cursor[m];
      if (e >= outStart[m + 1]) {
        post[done++] = m;
        depth--;
        continue;
      }
      cursor[m] = e + 1;
      const i = outgoing[e];
      const to = target[i];
      if (deferred[i] || entered[to]) continue;
      entered[to] = 1;
      path[++depth] = to;
    }
  }
  return post.subarray(0, done);
}

/** Position of each module in the post-order of the starts; −1 for modules never reached. */
export function evaluationOrder(index: GraphIndex, deferred: Uint8Array, starts: Iterable<number>): Int32Array {
  const position = new Int32Array(index.rank.length).fill(-1);
  const order = postOrder(index, deferred, starts);
  for (let at = 0; at < order.length; at++) position[order[at]] = at;
  return position;
}
