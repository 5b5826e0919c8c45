import { seeded } from '../sim/random.ts';
import { curveSets, type KnownSet } from './curve.ts';
import type { Measured } from './types.ts';

const known = (waste: number, cost: number, objective: number): KnownSet => ({
  candidates: [],
  waste,
  cost,
  objective,
});
const before = { cost: 1000 } as Measured;
const shown = (sets: readonly KnownSet[]) => sets.map((s) => [s.waste, s.cost]);

describe('the sets of a curve', () => {
  const choice = known(100, 500, 500);

  it('save a step more, each, than the one before and than nothing at all, and the choice than them: a fiftieth of all', () => {
    const listed = (cost: number) => curveSets([known(10, cost, cost)], choice, before).length === 2;
    const costs = Array.from({ length: 700 }, (_, i) => 400 + i);
    expect(costs.filter(listed)).toEqual(costs.filter((c) => c > 510 && c < 990));
    const apart = (by: number) =>
      curveSets([known(10, 800, 800), known(20, 800 - by, 800 - by)], choice, before).length;
    expect([apart(10), apart(11)]).toEqual([2, 3]);
  });

  it('save half a millisecond at least, however little all of them save', () => {
    const all = known(100, 995, 995);
    const listed = (cost: number) => curveSets([known(10, cost, cost)], all, before).length === 2;
    expect([995.5, 995.6, 999.4, 999.5].map(listed)).toEqual([false, true, true, false]);
  });

  it('pay for their upkeep: what saves more, and leaves less of it, isn’t one', () => {
    expect(shown(curveSets([known(10, 800, 800), known(20, 700, 850)], choice, before))).toEqual([
      [10, 800],
      [100, 500],
    ]);
  });

  it('waste less and cost more than the choice, of equal waste the better one', () => {
    const sets = [
      known(100, 700, 700),
      known(120, 600, 600),
      known(10, 490, 490),
      known(10, 900, 900),
      known(10, 700, 700),
    ];
    expect(shown(curveSets(sets, choice, before))).toEqual([
      [10, 700],
      [100, 500],
    ]);
    expect(shown(curveSets([known(10, 800, 400)], choice, before))).toEqual([[100, 500]]);
  });

  it('always rise in what they waste and fall in what they cost, the choice last', () => {
    const rand = seeded(5);
    for (let run = 0; run < 200; run++) {
      const some = Array.from({ length: 12 }, () => {
        const cost = 450 + Math.floor(rand() * 600);
        return known(Math.floor(rand() * 120), cost, cost + Math.floor(rand() * 80));
      });
      const sets = curveSets(some, choice, before);
      expect(sets.at(-1)).toBe(choice);
      sets.slice(1).forEach((set, i) => {
        expect(set.waste).toBeGreaterThanOrEqual(sets[i].waste);
        expect(set.cost).toBeLessThan(sets[i].cost);
        expect(set.objective).toBeLessThan(sets[i].objective);
      });
    }
  });
});
