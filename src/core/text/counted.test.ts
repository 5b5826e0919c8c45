import { counted } from './counted.ts';

it('one is one, and anything else is many', () => {
  expect([0, 1, 2, 1200].map((n) => counted(n, 'file'))).toEqual(['0 files', '1 file', '2 files', '1,200 files']);
  expect(counted(1, 'entry', 'entries')).toBe('1 entry');
  expect(counted(3, 'entry', 'entries')).toBe('3 entries');
});
