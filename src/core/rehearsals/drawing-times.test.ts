import { part, program } from '../../test-support/rehearsals.ts';
import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { drawingTimes } from './drawing-times.ts';
import type { RehearsedRun } from './types.ts';

describe('what drawing took', () => {
  const drawn = (shown: (number | null)[], tasks: RehearsedRun['tasks'], times = {}) =>
    drawingTimes({ shown, tasks, times }, program, { chunks: [] }, 1);

  it('is shared by the parts that were painted together, as it was reckoned', () => {
    const [shell, own] = drawn([500, 500], [{ start: 400, end: 480, of: { draw: 60, compile: 20 } }]);
    expect([shell, own]).toEqual([60, 20]);
  });

  it('is nothing where nothing was drawn, laid out or compiled', () => {
    expect(drawn([500, null], [{ start: 400, end: 480, of: { paint: 70 } as never }])).toEqual([0, null]);
  });

  it('leaves out what ran, and painting that the model counts by itself', () => {
    const tasks = [
      { start: 300, end: 400, of: { run: 80, compile: 20 } },
      { start: 400, end: 440, of: { draw: 20, layout: 20 } },
    ];
    expect(drawn([500, null], tasks)).toEqual([24, null]);
  });

  it('goes to who is painted next, task by task, in part where a paint comes between', () => {
    const tasks = [{ start: 400, end: 600, of: { draw: 200 } }];
    expect(drawn([500, 700], tasks)).toEqual([100, 100]);
  });

  it('goes from paint to paint in the order of time, whatever the order of the parts', () => {
    const tasks = [
      { start: 300, end: 400, of: { draw: 30 } },
      { start: 600, end: 700, of: { layout: 50 } },
    ];
    expect(drawn([700, 500], tasks)).toEqual([50 - REFERENCE_COSTS.paint, 30]);
  });

  it('is shared alike where nothing was reckoned, and has painting taken off as slow as the browser is', () => {
    const bare = { ...program, parts: [part('shell', { renderMs: 0 }), part('page', { renderMs: 0 })] };
    const tasks = [{ start: 400, end: 480, of: { draw: 20, layout: 60 } }];
    const of = (factor: number) => drawingTimes({ shown: [500, 500], tasks, times: {} }, bare, { chunks: [] }, factor);
    expect(of(1)).toEqual([0, 0].map(() => (80 - REFERENCE_COSTS.paint) / 2));
    expect(of(2)).toEqual([0, 0].map(() => (80 - 2 * REFERENCE_COSTS.paint) / 2));
    expect(of(1000)).toEqual([10, 10]);
  });

  it('takes off what a module ran once, and only after the first paint', () => {
    const graph = { chunks: [{ modules: [3] }] } as never;
    const both = [1, 1].map((resource) => ({ resource, state: 'evaluated' as const }));
    const own = { ...program, resources: program.resources.map((r, i) => (i === 1 ? { ...r, chunk: 0 } : r)) };
    own.parts = [part('shell', { needs: both }), part('page', { needs: both }), part('more', { needs: both })];
    const tasks = [
      { start: 400, end: 450, of: { draw: 50 } },
      { start: 600, end: 650, of: { draw: 50 } },
    ];
    const of = (shown: (number | null)[]) => drawingTimes({ shown, tasks, times: { 3: 30 } }, own, graph, 1);
    expect(of([500, 700, null])).toEqual([50, 50, null]);
    own.parts[0] = part('shell', { needs: [] });
    expect(of([500, 700, 700])).toEqual([50, 10, 10]);
  });

  it('doesn’t hold the running of files that came for a later part', () => {
    const graph = { chunks: [{ modules: [3] }] } as never;
    const own = { ...program, resources: program.resources.map((r, i) => (i === 1 ? { ...r, chunk: 0 } : r)) };
    own.parts = [part('shell'), part('page', { needs: [{ resource: 1, state: 'evaluated' }] })];
    const tasks = [{ start: 600, end: 650, of: { draw: 50 } }];
    expect(drawingTimes({ shown: [500, 700], tasks, times: { 3: 30 } }, own, graph, 1)).toEqual([0, 20]);
  });
});
