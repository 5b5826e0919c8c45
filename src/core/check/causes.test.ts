import { limit } from '../../test-support/limited-app.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { broughtBy, causesOf, recoverFor } from './causes.ts';

/** A page that is fetched at once, with tools of these weights, of which the last is needed by another as well. */
const app = (weights: Record<string, number>, more: Parameters<typeof sketch>[0] = {}) =>
  sketch(
    {
      main: { imports: ['~page', '~other'] },
      page: { imports: [...Object.keys(weights), 'base'], bytes: 500 },
      base: { bytes: 9000, imports: ['shared'] },
      shared: { bytes: 50_000 },
      other: { imports: ['heavy', 'page'], bytes: 400 },
      heavy: { bytes: 90_000 },
      ...Object.fromEntries(Object.entries(weights).map(([name, bytes]) => [name, { bytes }])),
      ...more,
    },
    { routes: [route('/', 'page', { parts: [part('page', 'page')] }), route('/other', 'other')] },
  );
const tools = { a: 9100, b: 12_000, c: 30_000, d: 5000, e: 60_000, f: 7000 };

describe('what carries most where all is as it was', () => {
  it('are the three imports that the start would lose most by, heaviest first, with the way there', () => {
    const of = app(tools);
    const causes = causesOf(of, of, BASELINE, { route: '/' });
    expect(causes.map((c) => [c.from, c.to, c.line, c.bytes, c.modules, c.isNew])).toEqual([
      ['page', 'e', 5, 60_000, 1, false],
      ['page', 'base', 7, 59_000, 1, false],
      ['base', 'shared', 1, 50_000, 1, false],
    ]);
    expect(causes[2].path).toEqual([
      { path: 'main', line: 1 },
      { path: 'page', line: 7 },
      { path: 'base', line: 1 },
      { path: 'shared', line: null },
    ]);
  });

  it('leaves out what two imports bring, since it stays without either, and has no cause for acts or other routes', () => {
    const kept = app({}, { base: { bytes: 9000 }, main: { imports: ['~page', '~other', 'base'] } });
    expect(causesOf(kept, kept, BASELINE, { route: '/' }).map((c) => c.to)).toEqual([]);
    expect(causesOf(kept, kept, BASELINE, { route: '/', action: 'none' })).toEqual([]);
    expect(causesOf(kept, kept, BASELINE, { route: '/gone' })).toEqual([]);
  });
});

describe('what came', () => {
  it('is counted by the first import that leads to what wasn’t there, new ones before what grew', () => {
    const before = app({ a: 1000 });
    const now = app({ a: 50_000, b: 3000 }, { b: { bytes: 3000, imports: ['inner'] }, inner: { bytes: 2000 } });
    expect(broughtBy(before, now, BASELINE, { route: '/' }).map((c) => [c.to, c.bytes, c.modules, c.isNew])).toEqual([
      ['b', 5000, 2, true],
      ['a', 49_000, 1, false],
    ]);
  });

  it('has its modules counted with the way to the heaviest, whichever comes first', () => {
    const way = (first: number, second: number) => {
      const now = app(
        { b: 3000 },
        { b: { bytes: 3000, imports: ['one', 'two'] }, one: { bytes: first }, two: { bytes: second } },
      );
      const [cause] = broughtBy(app({}), now, BASELINE, { route: '/' });
      expect([cause.bytes, cause.modules]).toEqual([3000 + first + second, 3]);
      return cause.path.map((p) => p.path).at(-1);
    };
    expect([way(9000, 4000), way(4000, 9000), way(1000, 900)]).toEqual(['one', 'two', 'b']);
  });

  it('is nothing that grew by nothing, or became less', () => {
    const more = (a: number) => broughtBy(app({ a: 5000 }), app({ a }), BASELINE, { route: '/' }).length;
    expect([more(4999), more(5000), more(5001)]).toEqual([0, 0, 1]);
  });

  it('is told from a fiftieth of the most on, five at most', () => {
    const came = (light: number) =>
      broughtBy(app({}), app({ big: 100_000, light }), BASELINE, { route: '/' }).map((c) => c.to);
    expect(came(2000)).toEqual(['big', 'light']);
    expect(came(1999)).toEqual(['big']);
    expect(broughtBy(app({}), app(tools), BASELINE, { route: '/' }).map((c) => c.to)).toEqual([
      ...['e', 'c', 'b', 'a', 'f'],
    ]);
  });

  it('isn’t what another route fetches later', () => {
    expect(broughtBy(app({}), app({}, { heavy: { bytes: 200_000 } }), BASELINE, { route: '/' })).toEqual([]);
    const [other] = broughtBy(app({}), app({}, { heavy: { bytes: 200_000 } }), BASELINE, { route: '/other' });
    expect(other).toMatchObject({ from: 'other', to: 'heavy', bytes: 110_000 });
  });
});

describe('what would recover a limit', () => {
  it('are the five heaviest imports of the start, the one that helps most first', () => {
    const of = app(tools);
    const tried = recoverFor(of, BASELINE, limit({ most: 50_000 }), []);
    expect(tried.map((r) => r.to)).toEqual(['e', 'base', 'shared', 'c', 'b']);
    for (const [i, r] of tried.entries()) {
      if (i > 0) expect(r.value).toBeGreaterThanOrEqual(tried[i - 1].value);
      expect(r.enough).toBe(r.value <= 50_000);
    }
  });

  it('is first of all taking back what is new, however little it is', () => {
    const before = app({ e: 60_000 });
    const now = app({ e: 60_000, late: 900 });
    const because = broughtBy(before, now, BASELINE, { route: '/' });
    expect(recoverFor(now, BASELINE, limit({ most: 1 }), because).map((r) => r.to)[0]).toBe('late');
    expect(recoverFor(now, BASELINE, limit({ most: 1 }), []).map((r) => r.to)[0]).toBe('e');
  });

  it('is nothing inside of packages, nothing that is deferred, and nothing that saves nothing', () => {
    const of = app(
      { kit: 100 },
      { kit: { package: 'kit', imports: ['kit-inner'] }, 'kit-inner': { package: 'kit', bytes: 80_000 } },
    );
    const tried = recoverFor(of, BASELINE, limit({ most: 1 }), []).map((r) => `${r.from} ${r.to}`);
    expect(tried).toContain('page kit');
    expect(tried).not.toContain('kit kit-inner');
    expect(tried).not.toContain('main page');
  });
});
