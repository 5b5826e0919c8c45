import { file, page, ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { rangeOf } from './range.ts';

const app = sketch({ main: { imports: ['page'] }, page: { bytes: 400_000 } }, { routes: [route('/', 'page')] });

describe('the range that an estimated cost of script leaves', () => {
  it('holds the predicted milestones', () => {
    const { program, reading } = predict(app, BASELINE, '/', ROUND);
    const { low, high } = rangeOf(program, ROUND)!;
    expect(low.interactive).toBeLessThan(reading.milestones.interactive);
    expect(high.interactive).toBeGreaterThan(reading.milestones.interactive);
  });

  it('is none where the cost is known, or nothing is estimated', () => {
    const { program } = predict(app, BASELINE, '/', ROUND);
    expect(rangeOf(program, { ...ROUND, device: { ...ROUND.device, evaluationRate: 0.0001 } })).toBeNull();
    const measured = page([{ at: 1, tag: 'script', group: 0, mode: 'async' }], [file('/a.js', { cpuMs: 20 })]);
    expect(rangeOf(measured, ROUND)).toBeNull();
  });
});
