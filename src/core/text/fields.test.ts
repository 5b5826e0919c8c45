import { InputError } from '../errors.ts';
import { amount, bytesOf, flag, LONGEST_TEXT, list, MOST_BYTES, MOST_MS, millisOf, object, text } from './fields.ts';

const refusal = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    if (error instanceof InputError) return error.message;
    throw error;
  }
  return 'taken';
};

describe('fields of what comes from outside', () => {
  it.each([
    ['an object', () => object([], 'a.b')],
    ['an object', () => object(null, 'a.b')],
    ['an object', () => object('x', 'a.b')],
    ['a list', () => list({ length: 1 }, 'a.b')],
    ['a text', () => text(7, 'a.b')],
    ['a text of at most 3 letters', () => text('four', 'a.b', 3)],
    ['a text of at most 100000 letters', () => text('x'.repeat(LONGEST_TEXT + 1), 'a.b')],
    ['a number of 0 or more', () => amount(-1, 'a.b')],
    ['a number of 0 or more', () => amount(Number.NaN, 'a.b')],
    ['a number of 0 or more', () => amount('1', 'a.b')],
    ['a number from 0 to 5', () => amount(6, 'a.b', 5)],
    ['a number from 0 to 2000000000', () => bytesOf(MOST_BYTES + 1, 'a.b')],
    ['a number from 0 to 86400000', () => millisOf(MOST_MS + 1, 'a.b')],
    ['true or false', () => flag(1, 'a.b')],
  ])('must be %s: it is told with the field (%#)', (expected, work) => {
    expect(refusal(work)).toContain(`a.b must be ${expected}, not `);
  });

  it('are taken up to their ends', () => {
    expect(object({}, 'a')).toEqual({});
    expect(list([1], 'a')).toEqual([1]);
    expect(text('x'.repeat(100_000), 'a')).toHaveLength(100_000);
    expect(text('abc', 'a', 3)).toBe('abc');
    expect([amount(0, 'a'), amount(5, 'a', 5), bytesOf(2_000_000_000, 'a'), millisOf(86_400_000, 'a')]).toEqual([
      ...[0, 5, 2_000_000_000, 86_400_000],
    ]);
    expect(flag(false, 'a')).toBe(false);
  });
});
