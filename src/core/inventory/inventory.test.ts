import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { inventoryOf } from './inventory.ts';
import { whereabouts } from './whereabouts.ts';

const app = sketch(
  {
    main: { imports: ['frame', 'home', '~list', '~far'] },
    frame: { imports: ['finder'] },
    finder: { imports: ['map'] },
    map: { bytes: 50_000, package: '@made/map' },
    home: { imports: ['helper'] },
    helper: {},
    list: { imports: ['helper', 'table'] },
    table: { bytes: 4000 },
    far: { imports: ['map', 'far.css'] },
    'far.css': { kind: 'style', bytes: 300 },
  },
  {
    routes: [
      route('/', 'home', { layouts: ['frame'] }),
      route('/list', 'list', { layouts: ['frame'] }),
      route('/far', 'far', { layouts: ['frame'] }),
    ],
    packages: [
      { name: '@made/map', version: '1.0.0', folder: 'a' },
      { name: '@made/map', version: '2.0.0', folder: 'b' },
    ],
  },
);

describe('inventoryOf', () => {
  const inventory = inventoryOf(app, BASELINE, DEFAULT_CONDITIONS);
  const row = (pattern: string) => inventory.routes.find((r) => r.pattern === pattern)!;

  it('shares out each start by who else needs it', () => {
    // Loader and wrappers are divided among the modules of their file.
    const about = (bytes: number, minified: number) => {
      expect(bytes).toBeGreaterThan(minified - 1);
      expect(bytes).toBeLessThan(minified * 1.025);
    };
    about(row('/list').only.minified, 5000);
    about(row('/far').only.minified, 1300);
    expect(row('/').only.minified).toBe(0);
    about(row('/').every.minified, 1000 * 5 + 50_000);
    for (const r of inventory.routes) {
      const whole = r.only.minified + r.some.minified + r.every.minified;
      expect(r.script.minified + r.style.minified).toBeCloseTo(whole, 6);
      expect(r.packages.reduce((sum, p) => sum + p.sizes.minified, 0)).toBeCloseTo(whole, 6);
      expect(r.requests).toBeGreaterThan(1);
    }
    about(row('/far').style.minified, 300);
    expect([row('/').hops, row('/list').hops]).toEqual([1, 2]);
  });

  it('lists the heaviest packages and modules with where they travel', () => {
    const [map] = inventory.packages;
    expect(map).toMatchObject({ name: '@made/map', modules: 1 });
    expect(map.routes.map((r) => r.pattern)).toEqual(['/', '/list', '/far']);
    for (const r of map.routes)
      expect(r.sizes).toEqual(row(r.pattern).packages.find((p) => p.name === '@made/map')!.sizes);
    expect(inventory.modules[0]).toMatchObject({ path: 'map', routes: 3 });
    expect(inventory.doubled.map((p) => p.versions)).toEqual([['1.0.0', '2.0.0']]);
  });

  it('finds the page that was forgotten among deferred ones, and the route’s code that the shell brings', () => {
    const leaks = inventory.leaks.map((l) => [l.name, l.from, l.neededBy, l.paidBy, l.siblings]);
    expect(leaks).toEqual([
      ['finder', 'frame', ['/far'], ['/', '/list'], 0],
      ['home', 'main', ['/'], ['/list', '/far'], 2],
    ]);
    const smaller = sketch(
      { main: { imports: ['a', '~b', '~c'] }, a: { bytes: 9000 }, b: {}, c: {} },
      { routes: [route('/a', 'a'), route('/b', 'b'), route('/c', 'c')] },
    );
    expect(inventoryOf(smaller, BASELINE, DEFAULT_CONDITIONS).leaks).toMatchObject([
      { import: 'main::a', neededBy: ['/a'], paidBy: ['/b', '/c'], siblings: 2, weight: { minified: 9000 } },
    ]);
  });

  it('has a leak from 2,000 bytes on, a page from 500 on, and none by what another import brings as well', () => {
    const leaksOf = (used: number, page = 400, imports: string[] = []) =>
      inventoryOf(
        sketch(
          {
            main: { imports: ['frame', 'home', '~list', ...imports] },
            frame: { imports: ['tool'] },
            tool: { bytes: 0, imports: ['heavy'] },
            heavy: { bytes: used },
            home: { bytes: page },
            list: { imports: ['heavy'] },
          },
          { routes: [route('/', 'home', { layouts: ['frame'] }), route('/list', 'list', { layouts: ['frame'] })] },
        ),
        BASELINE,
        DEFAULT_CONDITIONS,
      ).leaks.map((l) => `${l.from} ${l.to}`);
    expect(leaksOf(1999)).toEqual([]);
    expect(leaksOf(2000)).toEqual(['frame tool']);
    expect(leaksOf(2000, 499)).toEqual(['frame tool']);
    expect(leaksOf(2000, 500)).toEqual(['frame tool', 'main home']);
    expect(leaksOf(400, 500, ['heavy'])).toEqual(['main home']);
  });

  it('counts an import to who needs most of what it brings: six in ten', () => {
    const usersOf = (shared: number) =>
      inventoryOf(
        sketch(
          {
            main: { imports: ['frame', '~home', '~list'] },
            frame: { imports: ['tool'] },
            tool: { bytes: 10_000 - shared, imports: ['part'] },
            part: { bytes: shared },
            home: {},
            list: { imports: ['part'] },
          },
          { routes: [route('/', 'home', { layouts: ['frame'] }), route('/list', 'list', { layouts: ['frame'] })] },
        ),
        BASELINE,
        DEFAULT_CONDITIONS,
      ).leaks.map((l) => l.neededBy);
    expect(usersOf(5999)).toEqual([]);
    expect(usersOf(6000)).toEqual([['/list']]);
  });

  it('tells sheets with rules that nothing can use, the most wasteful first, with who has them at start', () => {
    const rule = (module: string, bytes: number) => ({ module, line: 1, selector: '.x', bytes, missing: ['x'] });
    const of = { ...app, unusedRules: [rule('far.css', 40), rule('gone.css', 200), rule('far.css', 60)] };
    expect(inventoryOf(of, BASELINE, DEFAULT_CONDITIONS).unusedStyles).toEqual([
      { module: 'gone.css', rules: of.unusedRules.slice(1, 2), bytes: 200, whole: 0, routes: [] },
      { module: 'far.css', rules: [of.unusedRules[0], of.unusedRules[2]], bytes: 100, whole: 300, routes: ['/far'] },
    ]);
    expect(inventory.unusedStyles).toEqual([]);
  });

  it('tells modules that travel more than once, by what their copies cost; not for entries that nobody loads both of', () => {
    expect(inventory.copies).toEqual([]);
    const built = (homes: Record<string, number[]>) => {
      const modules = Object.keys(homes);
      const files = [0, 1, 2].map((f) => {
        const own = modules.flatMap((m, module) => (homes[m].includes(f) ? [{ module, bytes: 1000 }] : []));
        return {
          ...{ path: `f${f}.js`, kind: 'script' as const, inside: 'sources' as const, modules: own, contents: [] },
          bytes: { minified: 1000 * own.length, gzip: 400, brotli: 300 },
          imports: f === 0 ? [1, 2].map((to) => ({ to, kind: 'dynamic' as const, line: 1 })) : [],
        };
      });
      const tags = [{ file: 0, placement: 'module' as const, offset: 10 }];
      const imports = ['b', 'all', '~once', '~a', '~two'];
      const of = sketch(Object.fromEntries(modules.map((m) => [m, m === 'main' ? { imports } : {}])), {
        routes: [route('/', 'main')],
      });
      return inventoryOf({ ...of, output: { files, starts: [{ realm: 'site', tags }] } }, BASELINE, DEFAULT_CONDITIONS);
    };
    expect(built({ main: [0], once: [1], b: [0, 1], a: [1, 2], all: [0, 1, 2], two: [2] }).copies).toEqual([
      { path: 'all', files: ['f0.js', 'f1.js', 'f2.js'], extra: 2000 },
      { path: 'a', files: ['f1.js', 'f2.js'], extra: 1000 },
      { path: 'b', files: ['f0.js', 'f1.js'], extra: 1000 },
    ]);
    const entries = ['site', 'admin'].map((realm) => ({
      ...{ realm, kind: 'document' as const, document: `${realm}.html`, modules: [realm] },
    }));
    const two = sketch(
      { site: { imports: ['kit'] }, admin: { imports: ['kit'] }, kit: {} },
      { entries, routes: [route('/', 'site'), route('/admin', 'admin', { realm: 'admin' })] },
    );
    expect(inventoryOf(two, BASELINE, DEFAULT_CONDITIONS).copies).toEqual([]);
  });

  it('of an app with one route has everything in every start', () => {
    const one = sketch({ main: { imports: ['home'] }, home: {} }, { routes: [route('/', 'home')] });
    const [only] = inventoryOf(one, BASELINE, DEFAULT_CONDITIONS).routes;
    expect([only.only.minified, only.some.minified]).toEqual([0, 0]);
    expect(only.every.minified).toBeGreaterThan(2000);
    expect(only.page).toBe('home');
  });

  it('lists modules of one weight by their paths', () => {
    const { modules } = inventoryOf(sketch({ b: {}, a: {}, c: { bytes: 9000 } }), BASELINE, DEFAULT_CONDITIONS);
    expect(modules.map((m) => m.path)).toEqual(['c', 'a', 'b']);
  });

  it('finds nothing wrong when nothing is', () => {
    const clean = sketch(
      { main: { imports: ['~a', '~b'] }, a: {}, b: {} },
      { routes: [route('/a', 'a'), route('/b', 'b')] },
    );
    expect(inventoryOf(clean, BASELINE, DEFAULT_CONDITIONS).leaks).toEqual([]);
  });
});

describe('whereabouts', () => {
  it('tells chunks, routes and the import paths, one per last importer, with lines', () => {
    const found = whereabouts(app, BASELINE, 'map')!;
    expect(found.chunks).toEqual(['entry']);
    const far = found.atStart.find((r) => r.pattern === '/far')!;
    expect(
      far.paths.map((p) => p.map((s) => `${s.path}${s.line ? `:${s.line}` : ''}${s.deferred ? ' deferred' : ''}`)),
    ).toEqual([
      ['main:4 deferred', 'far:1', 'map'],
      ['main:1', 'frame:1', 'finder:1', 'map'],
    ]);
    expect(whereabouts(app, BASELINE, 'main')!.atStart[0].paths).toEqual([
      [{ path: 'main', line: null, deferred: false }],
    ]);
    expect(whereabouts(app, BASELINE, 'nowhere')).toBeNull();
  });
});
