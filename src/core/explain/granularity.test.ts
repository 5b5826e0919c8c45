import path from 'node:path';
import { readSource } from '../../reader/read-source.ts';
import { withDecision } from '../plan/decisions.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { granularity } from './granularity.ts';

const { snapshot } = readSource(path.resolve('examples/saltmarsh-ferries'));

describe('the granularity curve', () => {
  const points = [...granularity(snapshot, BASELINE, '/timetable', DEFAULT_CONDITIONS)];

  it('goes from a file per module to one file, with what each way costs', () => {
    expect(points[0]).toMatchObject({ perModule: true, floor: 0 });
    expect(points[0].chunks).toBeGreaterThan(100);
    const last = points.at(-1)!;
    // One for scripts, one for styles.
    expect(last.chunks).toBe(2);
    const counts = points.map((p) => p.chunks);
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
    expect(last.startBytes).toBeGreaterThan(points[1].startBytes);
    expect(points[0].totalBytes).toBeGreaterThan(last.totalBytes);
  });

  it('marks the present plan, and gives exactly what the plan itself would', () => {
    expect(points.filter((p) => p.present)).toMatchObject([{ floor: 0, perModule: false }]);
    const plan = withDecision(BASELINE, { kind: 'floor', bytes: 5555 });
    const here = [...granularity(snapshot, plan, '/timetable', DEFAULT_CONDITIONS)].find((p) => p.present)!;
    const { reading } = predict(snapshot, plan, '/timetable', DEFAULT_CONDITIONS);
    expect(here).toMatchObject({
      floor: 5555,
      interactive: reading.milestones.interactive,
      requests: reading.readout.requests,
    });
  });
});
