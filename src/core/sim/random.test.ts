import fc from 'fast-check';
import { normal, seeded } from './random.ts';

/** The same generator in whole numbers of any length, after its published description. */
function* reference(seed: number): Generator<number> {
  const word = (n: bigint) => BigInt.asUintN(32, n);
  let state = word(BigInt(seed));
  for (;;) {
    state = word(state + 0x6d2b79f5n);
    let t = word((state ^ (state >> 15n)) * (state | 1n));
    t = word(t ^ (t + word((t ^ (t >> 7n)) * (t | 61n))));
    yield Number(t ^ (t >> 14n)) / 4294967296;
  }
}

describe('numbers from a seed', () => {
  it('are those of the generator as it is published', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const next = seeded(seed);
        const expected = reference(seed);
        for (let n = 0; n < 30; n++) expect(next()).toBe(expected.next().value);
      }),
    );
  });

  it('fill the span from 0 to 1 evenly', () => {
    const next = seeded(3);
    const tenths = new Array(10).fill(0);
    for (let n = 0; n < 20_000; n++) tenths[Math.floor(next() * 10)]++;
    for (const count of tenths) expect(Math.abs(count - 2000)).toBeLessThan(200);
  });
});

describe('normal numbers', () => {
  const from = (...numbers: number[]) => normal(() => numbers.shift()!);

  it('are those that Box and Muller give', () => {
    // A radius of one, at a quarter of the circle each.
    const one = 1 - Math.exp(-0.5);
    expect(from(one, 0)).toBeCloseTo(1, 12);
    expect(from(one, 0.25)).toBeCloseTo(0, 12);
    expect(from(one, 0.5)).toBeCloseTo(-1, 12);
    expect(from(1 - Math.exp(-2), 0)).toBeCloseTo(2, 12);
    expect(from(0, 0.3)).toBeCloseTo(0, 12);
  });

  it('have the mean 0, the deviation 1, and tails on both sides', () => {
    const next = seeded(11);
    const drawn = Array.from({ length: 20_000 }, () => normal(next));
    const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length;
    expect(mean).toBeCloseTo(0, 1);
    expect(drawn.reduce((sum, d) => sum + (d - mean) ** 2, 0) / drawn.length).toBeCloseTo(1, 1);
    for (const side of [1, -1])
      expect(drawn.filter((d) => d * side > 1.645).length / drawn.length).toBeCloseTo(0.05, 2);
  });
});
