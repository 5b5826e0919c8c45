import { file, page, ROUND } from '../../test-support/programs.ts';
import type { MarkupItem } from '../load/types.ts';
import { EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { calibrate } from './calibrate.ts';

const entry: MarkupItem = { at: 100, tag: 'script', group: 0, mode: 'module' };
const program = page([entry], [file('/entry.js', { bytes: 100_000, estimatedBytes: 400_000 })]);
const loadAt = (evaluationRate: number, slower = 1) =>
  simulate(program, { ...ROUND, device: { ...ROUND.device, cpuFactor: slower, evaluationRate } }).moments.load;

describe('calibrating by a recorded load event', () => {
  it.each([0.3, 1, 3, 7])('finds the rate that was used: %d times the usual one', (times) => {
    const rate = EVALUATION_RATE.likely * times;
    const found = calibrate(program, ROUND, loadAt(rate));
    expect(found.reached).toBe(true);
    expect(found.rate / rate).toBeCloseTo(1, 2);
    expect(found.load).toBeCloseTo(loadAt(rate), 0);
  });

  it('reaches the ends of what is believed', () => {
    const most = EVALUATION_RATE.likely * 8;
    expect(calibrate(program, ROUND, loadAt(most))).toMatchObject({ reached: true });
    expect(calibrate(program, ROUND, loadAt(0))).toMatchObject({
      reached: true,
      load: loadAt(calibrate(program, ROUND, loadAt(0)).rate),
    });
    expect(calibrate(program, ROUND, loadAt(0)).rate).toBeLessThan(most / 2 ** 17);
  });

  it('says so where the rate alone can’t reach it, and stays at its limit', () => {
    const late = calibrate(program, ROUND, loadAt(EVALUATION_RATE.likely * 30));
    expect(late.reached).toBe(false);
    expect(late.rate).toBeCloseTo(EVALUATION_RATE.likely * 8, 12);
    expect(late.load).toBe(loadAt(EVALUATION_RATE.likely * 8));
    const early = calibrate(program, ROUND, loadAt(0) - 10);
    expect(early).toEqual({ rate: 0, load: loadAt(0), reached: false });
  });
});
