import { firstOf } from './first-of.ts';

it('names as many as there is room for, and counts the others', () => {
  expect([firstOf([], 2), firstOf(['a', 'b'], 2), firstOf(['a', 'b', 'c'], 2)]).toEqual([
    '',
    'a, b',
    'a, b and 1 more',
  ]);
});
