import { readSource } from '../../reader/read-source.ts';
import { SAMPLE } from '../../test-support/folders.ts';
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

  it('tells on the sample why the document maker is on the timetable, and what finds the planted leaks', () => {
    const { snapshot } = readSource(SAMPLE);
    const found = whereabouts(snapshot, BASELINE, 'packages/paperkit/src/index.ts')!;
    const [path] = found.atStart.find((r) => r.pattern === '/timetable')!.paths;
    expect(path.slice(-3).map((s) => [s.path, s.line])).toEqual([
      ['src/timetable/departure-board.tsx', 6],
      ['src/tickets/ticket-dialog.tsx', 1],
      ['packages/paperkit/src/index.ts', null],
    ]);
    const { leaks } = inventoryOf(snapshot, BASELINE, DEFAULT_CONDITIONS);
    expect(leaks.map((l) => [l.from, l.line, l.name])).toEqual(
      expect.arrayContaining([
        ['src/app/frame.tsx', 8, 'berth-finder'],
        ['src/app/routes.tsx', 4, 'timetable-page'],
        ['src/app/routes.tsx', 5, 'sailing-page'],
      ]),
    );
    expect(leaks.map((l) => l.name)).not.toContain('app');
    expect(leaks.find((l) => l.name === 'berth-finder')).toMatchObject({ neededBy: ['/harbour'] });
  });
});
