import { file, page, ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { simulate } from '../sim/simulate.ts';
import { RECORDED_RANGE, rangeOf } from './range.ts';
import { readTimeline } from './readout.ts';

const app = sketch({ main: { imports: ['page'] }, page: { bytes: 400_000 } }, { routes: [route('/', 'page')] });

describe('the range that an estimated cost of script leaves', () => {
  it('holds the predicted milestones', () => {
    const { program, reading } = predict(app, BASELINE, '/', ROUND);
    const { low, high } = rangeOf(program, ROUND);
    const { interactive } = reading.milestones;
    expect(low.interactive).toBeLessThan(interactive * (1 - RECORDED_RANGE));
    expect(high.interactive).toBeGreaterThan(interactive * (1 + RECORDED_RANGE));
  });

  it('is how far recorded loads were off where the cost is known, or nothing is estimated', () => {
    const { program } = predict(app, BASELINE, '/', ROUND);
    const expectJust = (of: typeof program, conditions: typeof ROUND) => {
      const { low, high } = rangeOf(of, conditions);
      const { milestones } = readTimeline(of, simulate(of, conditions), conditions);
      for (const [key, at] of Object.entries(milestones) as [keyof typeof milestones, number][]) {
        if (Number.isNaN(at)) continue;
        expect(low[key]).toBeCloseTo(at * (1 - RECORDED_RANGE), 6);
        expect(high[key]).toBeCloseTo(at * (1 + RECORDED_RANGE), 6);
      }
    };
    expectJust(program, { ...ROUND, device: { ...ROUND.device, evaluationRate: 0.0001 } });
    const measured = page([{ at: 1, tag: 'script', group: 0, mode: 'async' }], [file('/a.js', { cpuMs: 20 })]);
    expectJust(measured, ROUND);
  });
});
