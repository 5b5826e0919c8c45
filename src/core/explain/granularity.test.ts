import path from 'node:path';
import { readSource } from '../../reader/read-source.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { withDecision } from '../plan/decisions.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { granularity } from './granularity.ts';

const { snapshot } = readSource(path.resolve('examples/saltmarsh-ferries'));

/** An app of so many modules of which the first loads the second. */
const tiny = (modules: number) =>
  sketch(
    Object.fromEntries(
      Array.from({ length: modules }, (_, i) => [`m${i}`, i === 0 ? { imports: ['m1'], bytes: 900 } : { bytes: 900 }]),
    ),
    { routes: [route('/', 'm0')] },
  );

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

  it('tries every floor once, in order, the present one among them', () => {
    const floors = [0, 1000, 2000, 4000, 8000, 16_000, 32_000, 64_000, 128_000, 256_000, 512_000];
    expect(points.map((p) => p.floor)).toEqual([0, ...floors, Number.MAX_SAFE_INTEGER]);
    expect(points.map((p) => p.perModule)).toEqual([true, ...Array(12).fill(false)]);
    const fine = ['grain', 'floor'].reduce(
      (plan, kind) => withDecision(plan, kind === 'grain' ? { kind } : { kind: 'floor', bytes: 3000 }),
      BASELINE,
    );
    const ways = [...granularity(tiny(3), fine, '/', DEFAULT_CONDITIONS)];
    expect(ways.slice(0, 3)).toMatchObject([
      { perModule: true, floor: 0, present: false },
      { perModule: true, floor: 3000, present: true },
      { perModule: false, floor: 0, present: false },
    ]);
    expect(ways.filter((p) => p.present)).toHaveLength(1);
  });

  it('counts the files of the route’s own entry', () => {
    const two = tiny(3);
    two.entries.push({ realm: 'worker', kind: 'worker', document: null, modules: ['m2'] });
    const [each] = granularity(two, BASELINE, '/', DEFAULT_CONDITIONS);
    expect(each.chunks).toBe(2);
    expect(each.totalBytes).toBeGreaterThan(0);
  });

  it('leaves out a file per module for apps of more than 4000 modules', () => {
    const first = (modules: number) => granularity(tiny(modules), BASELINE, '/', DEFAULT_CONDITIONS).next().value;
    expect(first(4000)).toMatchObject({ perModule: true });
    expect(first(4001)).toMatchObject({ perModule: false });
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
