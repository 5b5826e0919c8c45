import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { carriedOverRoutes, carriedRows } from './carried-rows.ts';

const app = sketch(
  {
    main: { imports: ['tool', 'page', 'tool', '~later'], bytes: 100 },
    page: { imports: ['tool', 'chart', 'b', 'a'], bytes: 200 },
    other: { imports: ['chart'], bytes: 300 },
    tool: { bytes: 5000 },
    chart: { imports: ['maths'], bytes: 7000 },
    maths: { bytes: 9000 },
    later: { imports: ['chart', 'maths'], bytes: 400 },
    a: { bytes: 50 },
    b: { bytes: 50 },
  },
  { routes: [route('/', 'page', { landings: 3 }), route('/other', 'other', { landings: 1 })] },
);

describe('what imports of a start carry', () => {
  it('is told of each pair of modules once, the heaviest first, those alike by their size and name', () => {
    const { imports } = carriedRows(app, BASELINE, app.routes[0]);
    expect(imports.map((i) => [i.from, i.to, i.line, i.own, i.leaves])).toEqual([
      ['page', 'chart', 2, 7000, 16_000],
      ['chart', 'maths', 1, 9000, 9000],
      ['page', 'a', 4, 50, 50],
      ['page', 'b', 3, 50, 50],
      ['main', 'tool', 1, 5000, 0],
      ['page', 'tool', 1, 5000, 0],
      // The page is asked for by its route, whoever imports it.
      ['main', 'page', 2, 200, 0],
    ]);
  });

  it('says where what leaves moves to, of an import with several statements by all of them', () => {
    const { imports } = carriedRows(app, BASELINE, app.routes[0]);
    const of = (to: string) => imports.find((i) => i.to === to)!;
    expect(of('chart').moved.length).toBeGreaterThan(0);
    for (const { moved } of imports) for (const m of moved) expect(m.bytes).toBeGreaterThan(0);
    expect(of('tool').moved).toEqual([]);
  });

  it('is told of modules as well, and of all of the start', () => {
    const { modules, startBytes } = carriedRows(app, BASELINE, app.routes[0]);
    expect(startBytes).toBe(100 + 200 + 5000 + 7000 + 9000 + 50 + 50);
    expect(modules.map((m) => [m.path, m.own, m.leaves])).toEqual([
      ['chart', 7000, 16_000],
      ['maths', 9000, 9000],
      ['tool', 5000, 5000],
      ['a', 50, 50],
      ['b', 50, 50],
      ['main', 100, 0],
      ['page', 200, 0],
    ]);
  });

  it('counts over all routes by their share of the landings', () => {
    const { expected, routes } = carriedOverRoutes(app, BASELINE, { from: 'page', to: 'chart' });
    expect(routes.map((r) => [r.pattern, r.leaves.minified])).toEqual([['/', 16_000]]);
    expect(expected.minified).toBe(16_000 * 0.75);
    expect(expected.compressed).toBeCloseTo(0.75 * (7000 / 3 + 3000), 0);
    const nothing = { expected: { minified: 0, compressed: 0 }, routes: [] };
    expect(carriedOverRoutes(app, BASELINE, { from: 'gone', to: 'chart' })).toEqual(nothing);
    expect(carriedOverRoutes(app, BASELINE, { from: 'page', to: 'gone' })).toEqual(nothing);
  });
});
