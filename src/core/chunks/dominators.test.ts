import fc from 'fast-check';
import { anyApp } from '../../test-support/snapshots.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import { dominatorTree } from './dominators.ts';

/** What is reached over static imports from the starts without passing a module. */
function reached(
  imports: readonly { from: number; to: number; kind: string }[],
  starts: readonly number[],
  without = -1,
): Set<number> {
  const found = new Set(starts.filter((m) => m !== without));
  for (const m of found)
    for (const i of imports) if (i.from === m && i.kind === 'static' && i.to !== without) found.add(i.to);
  return found;
}

describe('the dominator tree of a start', () => {
  it('says of every two modules whether one stands on all ways to the other, and who is nearest', () => {
    fc.assert(
      fc.property(anyApp(14), fc.uniqueArray(fc.nat(13), { minLength: 1, maxLength: 3 }), (app, wanted) => {
        const starts = [...new Set(wanted.map((m) => m % app.modules.length))];
        const deferred = Uint8Array.from(app.imports, (i) => (i.kind === 'dynamic' ? 1 : 0));
        const tree = dominatorTree(app, graphIndex(app), deferred, starts);
        const all = reached(app.imports, starts);
        expect(new Set(tree.order)).toEqual(all);
        for (let m = 0; m < app.modules.length; m++) {
          expect(tree.number[m] >= 0).toBe(all.has(m));
          if (all.has(m)) expect(tree.order[tree.number[m]]).toBe(m);
        }
        const passed = new Map([...all].map((a) => [a, reached(app.imports, starts, a)]));
        const onAllWays = (a: number, b: number) => a === b || !passed.get(a)!.has(b);
        for (const b of all) {
          const above = [...all].filter((a) => a !== b && onAllWays(a, b));
          for (const a of all) expect(tree.dominates(tree.number[a], tree.number[b])).toBe(onAllWays(a, b));
          // The nearest of them is the one that all others stand above.
          const nearest = above.find((a) => above.every((other) => onAllWays(other, a)));
          expect(tree.parent[tree.number[b]]).toBe(nearest === undefined ? -1 : tree.number[nearest]);
        }
      }),
      { numRuns: 400 },
    );
  });
});
