import { helperCount } from './client.ts';

it('helpers are as many as there are cores beside the page and the long analyst, and fewer for large apps', () => {
  expect([1, 2, 3, 4, 8, 64].map((cores) => helperCount(cores, 120))).toEqual([0, 0, 1, 2, 6, 14]);
  expect([5000, 10_000, 50_000, 100_000].map((modules) => helperCount(16, modules))).toEqual([12, 6, 1, 0]);
  expect(helperCount(4, 0)).toBe(2);
});
