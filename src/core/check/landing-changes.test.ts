import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { LimitCause } from './causes.ts';
import { AppState, landingChanges } from './landing-changes.ts';
import { alikeLandings, causeWords, landingChangeWords, routesWords } from './landing-words.ts';

const app = (home: string[], more: Parameters<typeof sketch>[0] = {}, routes = ['/', '/list']) =>
  sketch(
    {
      main: { imports: ['~home', '~list'] },
      home: { imports: home, bytes: 4000 },
      list: { bytes: 3000 },
      chart: { imports: ['maths'], bytes: 60_000 },
      maths: { bytes: 20_000 },
      ...more,
    },
    {
      entries: [{ realm: 'site', kind: 'document', document: 'index.html', modules: ['main'] }],
      routes: routes.map((r) => route(r, r === '/list' ? 'list' : 'home', { parts: [part('page', 'home')] })),
    },
  );
const state = (of: Snapshot) => new AppState(of, BASELINE, DEFAULT_CONDITIONS);

describe('what a change did to landings', () => {
  it('is nothing where nothing changed', () => {
    expect(landingChanges(state(app([])), state(app([])))).toEqual([]);
  });

  it('names the landing, its figures and the import that brought it, and the same backwards', () => {
    const [lean, heavy] = [state(app([])), state(app(['chart']))];
    const [change, ...others] = landingChanges(lean, heavy);
    expect(others).toEqual([]);
    expect(change).toMatchObject({ route: '/', state: 'changed', brought: [] });
    expect(change.brings.map((b) => [b.from, b.to, b.bytes, b.modules, b.isNew])).toEqual([
      ['home', 'chart', 80_000, 2, true],
    ]);
    expect(change.figures.map((f) => f.measure)).toEqual(expect.arrayContaining(['start bytes', 'interactive']));
    expect(landingChangeWords(change)).toMatch(/^start \+[\d.]+ kB, .*interactive \+\d+ ms/);
    expect(causeWords(change)).toMatch(/^home:\d+ now brings chart \(80 kB minified in 2 modules\)$/);
    const [back] = landingChanges(heavy, lean);
    expect(landingChangeWords(back)).toMatch(/^start −[\d.]+ kB/);
    expect(causeWords(back)).toBe('home no longer brings chart (80 kB minified in 2 modules)');
  });

  it('tells modules that grew by their own import', () => {
    const [change] = landingChanges(state(app(['chart'])), state(app(['chart'], { maths: { bytes: 26_000 } })));
    expect(causeWords(change)).toMatch(/^chart:\d+ brings more of maths \(6 kB minified\)$/);
  });

  it('tells landings that came and went', () => {
    const [small, large] = [state(app([], {}, ['/'])), state(app([]))];
    const said = (before: AppState, after: AppState) =>
      alikeLandings(landingChanges(before, after)).find((l) => l.routes.includes('/list'))?.words;
    expect(said(small, large)).toMatch(/^is new: start [\d.]+ kB, first content \d+ ms/);
    expect(said(large, small)).toBe('is gone');
  });

  it('puts landings together to which the same happened', () => {
    const changes = landingChanges(
      state(app(['chart'])),
      state(app(['chart'], { main: { imports: ['~home', '~list', 'maths'] } })),
    );
    expect(changes.length).toBeGreaterThan(0);
    for (const { routes } of alikeLandings([changes[0], { ...changes[0], route: '/twin' }]))
      expect(routes).toEqual([changes[0].route, '/twin']);
    // What else did it counts as well, though only the first is named in a line.
    const by = (to: string) =>
      ({ ...{ from: 'a', to, line: 2, bytes: 9, modules: 1, isNew: true }, path: [] }) as LimitCause;
    const twins = ['b', 'c'].map((to) => ({ ...changes[0], route: to, brings: [by('most'), by(to)], brought: [] }));
    expect(alikeLandings(twins).map((l) => l.routes)).toEqual([['b'], ['c']]);
    expect(routesWords(['/a', '/b'], 2)).toBe('/a, /b');
    expect(routesWords(['/a', '/b', '/c', '/d', '/e'], 9)).toBe('/a, /b, /c and 2 more');
    expect(routesWords(['/a', '/b', '/c', '/d', '/e'], 5)).toBe('all 5 landings');
    expect(routesWords(['/a', '/b', '/c'], 3)).toBe('/a, /b, /c');
    expect(routesWords(['/a', '/b', '/c', '/d'], 4)).toBe('all 4 landings');
  });

  it('puts the largest change of bytes first, those without any by their names', () => {
    const grown = (home: number, list: number) =>
      state(app([], { home: { imports: [], bytes: home }, list: { bytes: list } }));
    const order = (before: AppState, after: AppState) => landingChanges(before, after).map((c) => c.route);
    expect(order(grown(4000, 3000), grown(9000, 60_000))).toEqual(['/list', '/']);
    expect(order(grown(4000, 3000), grown(90_000, 6000))).toEqual(['/', '/list']);
    expect(order(grown(9000, 60_000), grown(4000, 3000))).toEqual(['/list', '/']);
    expect(order(grown(4000, 3000), grown(14_000, 13_000))).toEqual(['/', '/list']);
  });

  it('is told from the least of its unit on, and of what never comes as that', () => {
    const figure = (measure: 'start bytes' | 'interactive' | 'hops', before: number | null, after: number | null) =>
      landingChangeWords({ state: 'changed', figures: [{ measure, before, after } as never] });
    expect(figure('start bytes', 1000, 900)).toBe('start −100 bytes');
    expect(figure('interactive', 100, 300)).toBe('interactive +200 ms');
    expect(figure('interactive', null, 300)).toBe('interactive 300 ms');
    expect(figure('interactive', 300, null)).toBe('interactive never any more');
  });

  it('comes of what brings most, whichever way', () => {
    const cause = (bytes: number, isNew = true) =>
      ({ ...{ from: 'a', to: 'b', line: 2, bytes, modules: 1, isNew }, path: [] }) as LimitCause;
    const words = (brings: LimitCause[], brought: LimitCause[]) => causeWords({ brings, brought });
    expect(words([cause(2000)], [cause(1999)])).toBe('a:2 now brings b (2 kB minified), and 1 more import');
    expect(words([cause(2000)], [cause(2000)])).toMatch(/now brings/);
    expect(words([cause(1999)], [cause(2000)])).toBe('a no longer brings b (2 kB minified), and 1 more import');
    expect(words([cause(1), cause(3000)], [cause(2)])).toBe('a:2 now brings b (3 kB minified), and 2 more imports');
    expect(words([cause(9, false)], [])).toMatch(/brings more of/);
    expect(words([], [cause(9, false)])).toMatch(/brings less of/);
    expect(words([], [])).toBeNull();
  });

  it('of the same weight are in the order of their names, whichever was read first', () => {
    const twins = (bytes: number, routes: string[]) =>
      state(
        sketch(
          { main: { imports: ['~a', '~b'] }, a: { bytes }, b: { bytes } },
          { routes: routes.map((r) => route(r, r.slice(1))) },
        ),
      );
    for (const routes of [
      ['/a', '/b'],
      ['/b', '/a'],
    ])
      expect(landingChanges(twins(4000, routes), twins(9000, routes)).map((c) => c.route)).toEqual(['/a', '/b']);
  });

  it('asks only for the routes that are named', () => {
    const changes = landingChanges(state(app([])), state(app(['chart'])), new Set(['/list']));
    expect(changes).toEqual([]);
  });

  it('says nothing of a landing whose files only compress otherwise by what is elsewhere', () => {
    // Nothing of its own weighs otherwise: a byte more elsewhere is no change of it.
    const near = state(app([], { spare: { bytes: 900 } }));
    const other = state(app([], { spare: { bytes: 901 } }));
    expect(landingChanges(near, other)).toEqual([]);
  });
});
