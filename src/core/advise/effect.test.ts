import { sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { cautionsOf, effectOf, seenSum } from './effect.ts';
import type { Effect, RouteScore, Score, WaitScore } from './types.ts';

const landing = (pattern: string, more: Partial<RouteScore> = {}): RouteScore =>
  ({
    ...{ pattern, share: 0.5, firstContent: 1000, interactive: 2000, startBytes: 9000, otherScripts: 10 },
    ...{ alsoFetched: 20, hops: 2, moves: 0, blocked: 0 },
    ...more,
  }) as RouteScore;
const wait = (key: string, ms: number, more: Partial<WaitScore> = {}): WaitScore =>
  ({
    ...{ key, route: '/', name: key, wait: ms, first: 0.5, perVisit: 1, flashes: false, silent: false },
    ...more,
  }) as WaitScore;
const score = (routes: RouteScore[], waits: WaitScore[] = [], more: Partial<Score> = {}): Score => ({
  ...{ routes, waits, waste: 0, cost: 0 },
  ...more,
});

describe('what a change does', () => {
  it('is the difference of two scores', () => {
    const before = score([landing('/')], [wait('dialog', 400)], { cost: 50, waste: 7 });
    const after = score(
      [
        landing('/', {
          ...{ firstContent: 900, interactive: 1500, startBytes: 5000, otherScripts: 11, alsoFetched: 25, hops: 3 },
        }),
      ],
      [wait('dialog', 460)],
      { cost: 20, waste: 9 },
    );
    expect(effectOf(before, after)).toEqual({
      ...{ cost: -30, waste: 2, perVisit: 30, seen: { moves: 0, flashes: 0, silent: 0 } },
      routes: [
        {
          ...{ pattern: '/', share: 0.5, firstContent: -100, interactive: -500, startBytes: -4000 },
          ...{ otherScripts: 1, alsoFetched: 5, hops: 1 },
        },
      ],
      waits: [{ key: 'dialog', route: '/', name: 'dialog', change: 60 }],
    });
  });

  it('names landings and waits that differ, the most affected first', () => {
    const before = score(
      ['/a', '/b', '/c', '/d'].map((p) => landing(p)),
      [wait('x', 100), wait('y', 100), wait('z', 9)],
    );
    const after = score(
      [
        landing('/a', { interactive: 1999.6 }),
        landing('/b', { interactive: 1900 }),
        landing('/c', { interactive: 1700 }),
        landing('/d', { startBytes: 9001 }),
      ],
      [wait('x', 130), wait('y', 20), wait('z', 9.4), wait('new', 70)],
    );
    const { routes, waits } = effectOf(before, after);
    expect(routes.map((r) => r.pattern)).toEqual(['/c', '/b', '/d']);
    expect(waits.map((w) => [w.key, w.change])).toEqual([
      ['y', -80],
      ['x', 30],
    ]);
  });

  it('tells from half a millisecond on', () => {
    const of = (ms: number) =>
      effectOf(
        score([landing('/a'), landing('/b')], [wait('x', 100)]),
        score(
          [landing('/a', { firstContent: 1000 + ms }), landing('/b', { interactive: 2000 - ms })],
          [wait('x', 100 + ms)],
        ),
      );
    expect([of(0.6).routes.length, of(0.6).waits.length]).toEqual([2, 1]);
    expect([of(0.5).routes.length, of(0.5).waits.length]).toEqual([0, 0]);
  });

  it('counts what people see go wrong by how often they come to it', () => {
    const before = score([landing('/', { moves: 2 })], [wait('a', 1, { silent: true, perVisit: 0.25 })]);
    const after = score([landing('/', { moves: 1, share: 0.5 })], [wait('a', 1, { flashes: true, perVisit: 0.25 })]);
    expect(effectOf(before, after).seen).toEqual({ moves: -0.5, flashes: 0.25, silent: -0.25 });
  });

  it('is ruled out by anything that more people see go wrong', () => {
    const of = (moves: number, flashes: number, silent: number) =>
      seenSum({ seen: { moves, flashes, silent } } as Effect);
    expect(of(-1, -0.5, 0)).toBe(-1.5);
    expect(of(-1, 0.001, 0)).toBeCloseTo(-0.999);
    expect([of(-1, 0.0011, 0), of(0.002, -5, -5), of(-9, -9, 1)]).toEqual(
      [1, 1, 1].map(() => Number.POSITIVE_INFINITY),
    );
  });

  it('is told with what takes more than detaching, once, and only what comes of it', () => {
    const app = sketch({ main: { imports: ['a', 'b'] }, a: {}, b: {} });
    app.imports = app.imports.map((i) => ({ ...i, sync: { reason: 'it is called', line: 4 } }));
    const detach = (module: string) => ({ kind: 'detach' as const, module });
    const plan = { ...BASELINE, decisions: [detach('a')] };
    const remedy = { words: '', decisions: [detach('b')] };
    expect(cautionsOf(app, plan, remedy)).toEqual(['main::b: it is called (line 4)']);
    expect(cautionsOf(app, BASELINE, { words: '', decisions: [detach('a'), detach('b')] })).toHaveLength(2);
    expect(cautionsOf(app, plan, { words: '', decisions: [] })).toEqual([]);
  });
});
