import path from 'node:path';
import { readSource } from '../../reader/read-source.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { withDecision } from '../plan/decisions.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { explainHold } from './hold.ts';

describe('what stays, and who keeps it', () => {
  const app = sketch(
    {
      main: { imports: ['page'] },
      page: { imports: ['dialog', 'board'] },
      dialog: { bytes: 2000, imports: ['chart', 'own'] },
      own: { bytes: 5000 },
      board: { imports: ['level'] },
      level: { bytes: 300, imports: ['chart'] },
      chart: { bytes: 80_000, imports: ['axis'] },
      axis: { bytes: 9000 },
    },
    { routes: [route('/', 'page')] },
  );
  const detach: Decision[] = [{ kind: 'detach', import: 'page::dialog' }];
  const hold = explainHold(app, BASELINE, detach, app.routes[0], 'dialog')!;

  it('is told with the importer that holds it and its line', () => {
    expect(hold.leaves).toMatchObject({ minified: 7000, count: 2, heaviest: ['own', 'dialog'] });
    expect(hold.stays).toMatchObject({ minified: 89_000, count: 2 });
    expect(hold.holds).toEqual([
      {
        module: 'chart',
        weight: expect.objectContaining({ minified: 89_000 }),
        by: [{ path: 'level', line: 1, key: 'level::chart' }],
      },
    ]);
  });

  it('is freed by the cheapest cut, which keeps its promise', () => {
    expect(hold.cut).toMatchObject({ frees: 'chart', leaves: { minified: expect.any(Number) } });
    const plan = [...detach, ...hold.cut!.decisions].reduce(withDecision, BASELINE);
    const before = predict(app, detach.reduce(withDecision, BASELINE), '/', DEFAULT_CONDITIONS);
    const after = predict(app, plan, '/', DEFAULT_CONDITIONS);
    const start = (p: typeof after) =>
      new Set(p.graph.roots[0].need).size === 0
        ? 0
        : [...p.graph.roots[0].need].reduce((s, m) => s + app.modules[m].bytes.minified, 0);
    expect(start(before) - start(after)).toBe(hold.cut!.leaves.minified);
  });

  it('tells what moves to whom', () => {
    expect(hold.moved[0]).toEqual({ root: 'site:dialog', bytes: 7000 });
    expect(explainHold(app, BASELINE, [], app.routes[0], 'none')).toBeNull();
  });

  it('explains in the sample what keeps the chart package in the start, and frees it', () => {
    const { snapshot } = readSource(path.resolve('examples/saltmarsh-ferries'));
    const timetable = snapshot.routes.find((r) => r.pattern === '/timetable')!;
    const chart = explainHold(snapshot, BASELINE, [], timetable, 'src/tide/tide-chart.tsx')!;
    expect(chart.stays.minified).toBeGreaterThan(200_000);
    expect(chart.holds[0]).toMatchObject({
      module: 'src/shared/tide-level.ts',
      by: [{ path: 'src/timetable/departure-board.tsx', line: 4 }],
    });
    expect(chart.cut).toMatchObject({
      frees: '@saltmarsh/tidewright',
      imports: ['src/shared/tide-level.ts::@saltmarsh/tidewright'],
    });
    expect(chart.cut!.leaves.minified).toBeGreaterThan(200_000);
  });
});
