import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { losersOf } from './losers.ts';

const circumstance = { name: 'usual', conditions: DEFAULT_CONDITIONS, share: 1 };

/** A score with one landing and one wait. */
function scored(cost: number, content: number, answer: number, wait: number, share = 1) {
  const route = { pattern: '/a', share, firstContent: content, firstScreenComplete: answer, interactive: answer };
  const sums = { startBytes: 0, otherScripts: 0, alsoFetched: 0, hops: 0, moves: 0, silent: 0 };
  const act = { key: 'k', name: 'dialog', route: '/a', share: 1, wait };
  return { circumstance, score: { routes: [{ ...route, ...sums }], waits: [act], waste: 0, cost } as never };
}

describe('losersOf', () => {
  const before = [scored(1000, 500, 2000, 300)];
  const told = (...now: ReturnType<typeof scored>[]) => losersOf(before, now).map((l) => [l.who, l.change]);

  it('tells visitors, landings and waits that take longer, the worst first', () => {
    expect(told(scored(1030, 540, 2200, 420))).toEqual([
      ['/a until interactive', 200],
      ['dialog on /a', 120],
      ['first content of /a', 40],
      ['', 30],
    ]);
  });

  it('but nothing that is within 10 ms, or within a hundredth of what it was, or sooner', () => {
    expect(told(scored(1010, 510, 2020, 310))).toEqual([]);
    expect(told(scored(1011, 511, 2021, 311))).toEqual([
      ['/a until interactive', 21],
      ['', 11],
      ['first content of /a', 11],
      ['dialog on /a', 11],
    ]);
    expect(told(scored(500, 100, 100, 0))).toEqual([]);
  });

  it('and no landing that nobody comes to, and no more than twenty', () => {
    expect(told(scored(1000, 900, 2900, 300, 0))).toEqual([]);
    const many = Array.from({ length: 12 }, () => scored(1000, 500, 2000, 300));
    const worse = Array.from({ length: 12 }, (_, i) => scored(1000, 600 + i, 3000 + i, 300));
    const all = losersOf(many, worse);
    expect(all).toHaveLength(20);
    expect(all[0].change).toBe(1011);
    expect(all.at(-1)!.change).toBe(104);
  });
});
