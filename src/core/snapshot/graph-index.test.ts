import { sketch } from '../../test-support/snapshots.ts';
import { graphIndex, importKey } from './graph-index.ts';

const app = sketch({ c: { imports: ['a', 'b', '~a'] }, a: { imports: ['b'] }, B: {}, b: { imports: ['c'] } });

describe('the index of a graph', () => {
  it('has modules by path and in its order, whatever their places', () => {
    const { moduleAt, sorted, rank } = graphIndex(app);
    expect(Object.fromEntries(moduleAt)).toEqual({ c: 0, a: 1, B: 2, b: 3 });
    expect([...sorted]).toEqual([2, 1, 3, 0]);
    expect([...rank]).toEqual([3, 1, 0, 2]);
  });

  it('tells styles from all else', () => {
    const { isStyle } = graphIndex(sketch({ a: { imports: ['b.css'] }, 'b.css': { kind: 'style' } }));
    expect([...isStyle]).toEqual([0, 1]);
  });

  it('has the imports of each module in the order of their places, then of their names', () => {
    const { outStart, outgoing, inStart, incoming, target, deferred } = graphIndex(app);
    const out = (m: number) => [...outgoing.subarray(outStart[m], outStart[m + 1])];
    const into = (m: number) => [...incoming.subarray(inStart[m], inStart[m + 1])];
    expect([0, 1, 2, 3].map(out)).toEqual([[0, 1, 2], [3], [], [4]]);
    expect([0, 1, 2, 3].map(into)).toEqual([[4], [0, 2], [], [3, 1]]);
    expect([...target]).toEqual([1, 3, 1, 3, 0]);
    expect([...deferred]).toEqual([0, 0, 1, 0, 0]);
    const moved = app.imports.map((i, at) => (i.from === 0 ? { ...i, start: 100 - (at % 2) } : i));
    const { outgoing: other, outStart: from } = graphIndex({ ...app, imports: moved });
    // b stands first; of the two of `a` that stand in one place, the first of them.
    expect([...other.subarray(from[0], from[1])]).toEqual([1, 0, 2]);
    const together = app.imports.map((i) => ({ ...i, start: 5 }));
    const { outgoing: named } = graphIndex({ ...app, imports: together });
    expect([...named.subarray(from[0], from[1])]).toEqual([0, 2, 1]);
  });

  it('finds imports by name, and is made once', () => {
    const index = graphIndex(app);
    expect([...index.importAt]).toEqual([
      ['a::b', 3],
      ['b::c', 4],
      ['c::a', 0],
      ['c::b', 1],
      ['c::a#1', 2],
    ]);
    expect(importKey(app, app.imports[2])).toBe('c::a#1');
    expect(graphIndex(app)).toBe(index);
  });
});
