import type { Unresolved } from '../snapshot/types.ts';
import { lostImports, lostWords } from './lost-imports.ts';

const lost = (from: string, specifier: string, more: Partial<Unresolved> = {}): Unresolved => ({
  ...{ from, specifier, line: 4, reason: 'it isn’t there', leftOut: false },
  ...more,
});

it('tells imports that lead nowhere since then, and no others', () => {
  const before = { unresolved: [lost('a.ts', './x'), lost('a.ts', 'fs', { leftOut: true })] };
  const now = {
    unresolved: [
      ...[lost('a.ts', './x', { line: 9 }), lost('a.ts', 'fs', { leftOut: true }), lost('b.ts', './x')],
      ...[lost('b.ts', 'path', { leftOut: true }), lost('a.ts', './y')],
    ],
  };
  expect(lostImports(before, now).map((u) => lostWords(u))).toEqual([
    'b.ts:4 leads nowhere: ./x',
    'a.ts:4 leads nowhere: ./y',
  ]);
  expect(lostImports(now, now)).toEqual([]);
  expect(lostImports(now, before)).toEqual([]);
  const written = lostWords(
    lost('src/a.ts', '../x'),
    (file) => `<${file}>`,
    (specifier) => `“${specifier}”`,
  );
  expect(written).toBe('<src/a.ts:4> leads nowhere: “../x”');
});
