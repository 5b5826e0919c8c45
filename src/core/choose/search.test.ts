import { finish } from '../steps.ts';
import type { Problem } from './problem.ts';
import { Search } from './search.ts';

interface Measured {
  cost: number;
  takes: number;
}

/** Candidates that save and take so much, whatever else is there; without any of them 1000 are taken up already. */
function problem(saves: readonly number[], takes: readonly number[], more: Partial<Problem<Measured>> = {}) {
  const sum = (of: readonly number[], set: readonly number[]) => set.reduce((all, i) => all + of[i], 0);
  const p: Problem<Measured> = {
    count: saves.length,
    instead: String,
    bundles: [],
    measure: (set) => ({ cost: 500 - sum(saves, set), takes: 1000 + sum(takes, set) }),
    price: 0,
    keeps: () => true,
    weight: ({ takes: all }) => all,
    most: null,
    touches: () => false,
    ...more,
  };
  return p;
}

function begun(p: Problem<Measured>) {
  const search = new Search(p, false);
  const ready = finish(search.begin());
  return { ready, search };
}

describe('a search', () => {
  it('begins with all candidates; of those that exclude each other with the best', () => {
    const p = problem([5, 9, 7, 2], [1, 1, 1, 1], { instead: (i) => (i < 3 ? 'one of three' : 'alone') });
    const { ready, search } = begun(p);
    expect(ready).toBe(true);
    expect(search.set).toEqual([1, 3]);
    expect(search.soFar).toEqual([{ candidates: [1, 3], measured: p.measure([1, 3]) }]);
  });

  it('begins without those that take up most for what they save, until the rest keeps the limit', () => {
    expect(begun(problem([50, 40, 30], [49, 10, 12], { most: 1030 })).search.set).toEqual([1, 2]);
    expect(begun(problem([50, 40, 30], [49, 10, 12], { most: 1060 })).search.set).toEqual([1, 2]);
    expect(begun(problem([50, 40, 30], [49, 10, 12], { most: 1012 })).search.set).toEqual([1]);
    expect(begun(problem([50, 40, 30], [49, 10, 12], { most: 1071 })).search.set).toEqual([0, 1, 2]);
  });

  it('doesn’t begin where no set keeps the limits', () => {
    const { ready, search } = begun(problem([5, 9], [1, 1], { keeps: () => false }));
    expect([ready, search.set, search.soFar]).toEqual([false, [], []]);
  });

  it('tells of each candidate alone, then of those that are left out', () => {
    const search = new Search(problem([50, 40, 30], [49, 10, 12], { most: 1010 }), false);
    expect([...search.begin()].map(({ phase, done, of }) => `${phase} ${done} of ${of}`)).toEqual([
      ...['each alone 0 of 3', 'each alone 1 of 3', 'each alone 2 of 3'],
      ...['each alone 0 of 3', 'each alone 1 of 3'],
    ]);
  });

  it('goes on from a set that it is given, which counts as found', () => {
    const p = problem([5, 9, 7], [1, 1, 1]);
    const search = new Search(p, false);
    search.startFrom([2]);
    expect(search.soFar).toEqual([{ candidates: [2], measured: p.measure([2]) }]);
    expect(search.cost).toBe(493);
    expect(finish(search.add())).toBe(true);
    expect(search.soFar.map((s) => s.candidates)).toEqual([[2], [1], [0]]);
  });
});
