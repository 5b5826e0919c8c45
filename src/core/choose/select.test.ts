import { type MadeUpMeasure as Measured, madeUpProblem } from '../../../script/benching/made-up-choices.mjs';
import { seeded } from '../sim/random.ts';
import { finish } from '../steps.ts';
import type { Problem } from './problem.ts';
import { FEW, select, stepwise } from './select.ts';

const costOf = (p: Problem<Measured>, chosen: { candidates: number[] }[]): Measured =>
  p.measure(chosen.flatMap((c) => c.candidates).sort((a, b) => a - b));

describe('selecting', () => {
  it.each([0, 40])('step by step finds the best of 12 in all made-up cases (price %d)', (price) => {
    const gaps = Array.from({ length: 40 }, (_, seed) => {
      const p = madeUpProblem(seeded, seed + 1, FEW, price);
      const { cost: before } = p.measure([]);
      const saved = before - p.least();
      const { chosen, exhaustive } = finish(stepwise(p));
      const measured = costOf(p, chosen);
      expect(exhaustive).toBe(false);
      expect(measured.waste).toBeLessThanOrEqual(p.most!);
      const { length } = chosen.flatMap((c) => c.candidates);
      return saved < 1 ? 0 : (measured.cost + price * length - p.least()) / saved;
    });
    const equal = gaps.filter((g) => g < 0.002).length;
    expect(equal).toBe(gaps.length);
  });

  it.each([0, 40])('finds the best set for each amount of waste as well (price %d)', (price) => {
    const gaps = Array.from({ length: 12 }, (_, seed) => {
      const p = { ...madeUpProblem(seeded, seed + 500, FEW, price), most: null };
      const { frontier } = finish(stepwise(p));
      const { cost: before } = p.measure([]);
      const top = frontier.at(-1)!.weight;
      for (const [at, point] of frontier.entries()) {
        expect(point.objective).toBeCloseTo(p.measure(point.set).cost + price * point.set.length, 6);
        if (at > 0) expect(point.weight).toBeGreaterThan(frontier[at - 1].weight);
      }
      return [0, 0.2, 0.5, 0.8, 1].map((share) => {
        const least = p.least(top * share);
        const within = frontier.filter((f) => f.weight <= top * share).at(-1);
        return before - least < 1 ? 0 : (Math.min(before, within?.objective ?? before) - least) / (before - least);
      });
    }).flat();
    expect(Math.max(...gaps)).toBeLessThan(0.002);
  });

  it('tries every set where there are few', () => {
    for (const seed of [3, 9, 27]) {
      const p = madeUpProblem(seeded, seed, 8);
      const { chosen, exhaustive } = finish(select(p));
      expect(exhaustive).toBe(true);
      expect(costOf(p, chosen).cost).toBeLessThan(p.least() + 0.51);
    }
  });

  it('tells in which order each earned its place: every turn saves at least what the next would have then', () => {
    const p = madeUpProblem(seeded, 5, 20);
    const { chosen } = finish(select(p));
    const first = p.measure([]).cost - chosen[0].measured.cost;
    for (const { candidates } of chosen.slice(1))
      expect(p.measure([]).cost - p.measure(candidates).cost).toBeLessThanOrEqual(first);
    expect(chosen.length).toBeGreaterThan(2);
  });

  it('never takes two that exclude each other, and gives the same answer again', () => {
    for (let seed = 60; seed < 80; seed++) {
      const p = madeUpProblem(seeded, seed, 16);
      const once = finish(select(p)).chosen.flatMap((c) => c.candidates);
      expect(new Set(once.map(p.instead)).size).toBe(once.length);
      expect(finish(select(p)).chosen.flatMap((c) => c.candidates)).toEqual(once);
    }
  });

  it('takes no change that saves less than it is worth, and fewer of them the more each has to save', () => {
    const counts = [0, 20, 60, 200].map((price) => {
      const p = madeUpProblem(seeded, 7, 20, price);
      const { chosen } = finish(select(p));
      let last = p.measure([]).cost;
      const gains = chosen.map((c) => last - (last = c.measured.cost));
      expect(gains.reduce((sum, g) => sum + g, 0)).toBeGreaterThanOrEqual(price * chosen.length);
      return chosen.length;
    });
    expect([...counts].sort((a, b) => b - a)).toEqual(counts);
    expect(counts[3]).toBeLessThan(counts[0]);
  });

  it('takes nothing where nothing helps', () => {
    const idle = {
      ...madeUpProblem(seeded, 1, 14),
      measure: (set: readonly number[]) => ({ cost: 100 + set.length, waste: 0 }),
    };
    expect(finish(select(idle)).chosen).toEqual([]);
  });
});

describe('a search by steps', () => {
  const problem = (over: Partial<Problem<Measured>>, saves: number[], waste: number[]): Problem<Measured> => ({
    count: saves.length,
    instead: String,
    bundles: [],
    price: 0,
    measure: (set) => ({
      cost: 1000 - set.reduce((sum, i) => sum + saves[i], 0),
      waste: set.reduce((sum, i) => sum + waste[i], 0),
    }),
    keeps: () => true,
    weight: (m) => m.waste,
    most: 100,
    touches: () => false,
    ...over,
  });
  const chosen = (p: Problem<Measured>) =>
    finish(stepwise(p))
      .chosen.flatMap((t) => t.candidates)
      .sort();

  it('tries again what broke a limit, once something else was taken', () => {
    expect(chosen(problem({}, [50, 10], [150, -100]))).toEqual([0, 1]);
  });

  it('measures again what touches what was taken', () => {
    // The second saves nothing beside the first; the third saves less than it did alone.
    const measure = (set: readonly number[]): Measured => ({
      cost: 1000 - (set.includes(0) ? 50 : set.includes(1) ? 49 : 0) - (set.includes(2) ? 20 : 0),
      waste: 0,
    });
    expect(chosen(problem({ measure, touches: () => true }, [50, 49, 20], [0, 0, 0]))).toEqual([0, 2]);
  });
});
