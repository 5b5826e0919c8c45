import { busyShare, stolenIn, stolenShare, ticks } from './machine.ts';

describe('how the time of processors went', () => {
  it('has what was stolen as its eighth figure, in hundredths of a second', () => {
    expect(stolenIn('cpu  5197411 0 352406 1807068 19518 0 13327 635395 0 0\ncpu0 1 2 3 4 5 6 7 8 9 0\n')).toBe(
      6_353_950,
    );
    expect([stolenIn(''), stolenIn('intr 7 8'), stolenIn('cpu  1 2 3')]).toEqual([0, 0, 0]);
  });

  it('is told as shares between two moments', async () => {
    const at = (idle: number, stolen: number, all: number) => ({ idle, stolen, all });
    expect(stolenShare(at(5, 10, 100), at(9, 30, 180))).toBe(0.25);
    expect(stolenShare(at(5, 10, 100), at(5, 10, 100))).toBe(0);
    const now = ticks();
    expect(now.all).toBeGreaterThan(now.idle + now.stolen);
    const share = await busyShare(50);
    expect(share).toBeGreaterThanOrEqual(0);
    expect(share).toBeLessThanOrEqual(1);
  });
});
