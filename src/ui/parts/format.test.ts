import { percent, size, time } from './format.ts';

it.each([
  [0, '0 kB'],
  [42, '42 B'],
  [180, '0.2 kB'],
  [9940, '9.9 kB'],
  [62_400, '62 kB'],
  [1_240_000, '1.24 MB'],
])('size of %d bytes', (bytes, words) => expect(size(bytes)).toBe(words));

it.each([
  [0, '0 ms'],
  [12.4, '12 ms'],
  [999.4, '999 ms'],
  [2944, '2.94 s'],
  [Number.NaN, 'never'],
])('time of %d ms', (ms, words) => expect(time(ms)).toBe(words));

it('shares are whole per cents', () => expect(percent(0.556)).toBe('56 %'));
