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
export function postOrder(index: GraphIndex, deferred: Uint8Array, starts: Iterable<number>): number[] {
  const entered = new Uint8Array(index.rank.length);
  const { outStart, outgoing, target } = index;
  const post: number[] = [];
  const path: number[] = [];
  const cursor: number[] = [];
  const enter = (m: number) => {
    entered[m] = 1;
    path.push(m);
    cursor.push(outStart[m]);
  };
  for (const start of starts) {
    if (!entered[start]) enter(start);
    while (path.length > 0) {
      const m = path[path.length - 1];
      const e = cursor[cursor.length - 1]++;
      if (e >= outStart[m + 1]) {
        post.push(m);
        path.pop();
        cursor.pop();
        continue;
      }
      const i = outgoing[e];
      const to = target[i];
      if (!deferred[i] && !entered[to]) enter(to);
    }
  }
  return post;
}

/** Position of each module in the post-order of the starts; −1 for modules never reached. */
export function evaluationOrder(index: GraphIndex, deferred: Uint8Array, starts: Iterable<number>): Int32Array {
  const position = new Int32Array(index.rank.length).fill(-1);
  postOrder(index, deferred, starts).forEach((m, at) => {
    position[m] = at;
  });
  return position;
}
