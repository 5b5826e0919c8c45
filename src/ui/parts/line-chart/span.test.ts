import fc from 'fast-check';
import { spanOf } from './span.ts';

/** Times and sizes as they come; a chart shows no finer differences. */
const TENTHS = fc.integer({ min: -100_000_000, max: 100_000_000 }).map((n) => n / 10);

describe('the span of an axis', () => {
  it('begins at nothing, or is said to be cut; holds all values; has round ticks from end to end', () => {
    fc.assert(
      fc.property(fc.array(TENTHS, { minLength: 1 }), (values) => {
        const { domain, ticks, cut } = spanOf(values, String);
        const [low, high] = domain;
        expect(low).toBeLessThan(high);
        for (const v of values) expect(v >= low && v <= high).toBe(true);
        expect(cut).toBe(low > 0);
        if (!cut) expect(low <= 0 && high >= 0).toBe(true);
        expect(ticks[0]).toBeCloseTo(low, 5);
        expect(ticks.at(-1)).toBeCloseTo(high, 5);
        expect(ticks.length).toBeGreaterThan(1);
        expect(ticks.length).toBeLessThan(13);
      }),
    );
  });

  it('has no two ticks that are written alike', () => {
    const megabytes = (v: number) => `${(v / 1e6).toFixed(2)} MB`;
    const { ticks } = spanOf([1_303_000, 1_316_000], megabytes);
    expect(ticks.length).toBeGreaterThan(1);
    expect(new Set(ticks.map(megabytes)).size).toBe(ticks.length);
  });

  it('is cut only where the values would be level lines otherwise', () => {
    expect(spanOf([3450, 3730], String)).toEqual({
      domain: [3450, 3750],
      ticks: expect.arrayContaining([3500]),
      cut: true,
    });
    expect(spanOf([400, 1000], String)).toMatchObject({ domain: [0, 1000], cut: false });
    expect(spanOf([500, 500], String)).toMatchObject({ domain: [0, 500], cut: false });
    expect(spanOf([-20, 100], String).domain[0]).toBeLessThanOrEqual(-20);
    expect(spanOf([Number.NaN], String)).toMatchObject({ domain: [0, 1], cut: false });
  });
});
