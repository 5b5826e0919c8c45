import fc from 'fast-check';
import { wildcard } from './wildcard.ts';

/** The same by an expression of the platform, for short texts. */
function slowly(pattern: string, folders: boolean): RegExp {
  const body = pattern
    .split(folders ? /(\*\*\/?|\*)/ : /(\*)/)
    .map((piece) =>
      piece === '**/'
        ? '(?:.*/)?'
        : piece === '**' || (piece === '*' && !folders)
          ? '.*'
          : piece === '*'
            ? '[^/]*'
            : piece.replace(/[.+^${}()|[\]\\?]/g, '\\$&'),
    )
    .join('');
  return new RegExp(`^${body}$`, 's');
}

it.each([
  ['src/*.ts', 'src/a.ts', true],
  ['src/*.ts', 'src/in/a.ts', false],
  ['src/**', 'src/in/a.ts', true],
  ['src/**/a.ts', 'src/a.ts', true],
  ['src/**/a.ts', 'src/x/y/a.ts', true],
  ['src/**/a.ts', 'src/xa.ts', false],
  ['**/*.css', 'a.css', true],
  ['a', 'ab', false],
])('%s and %s: %s', (pattern, text, fits) => {
  expect(wildcard(pattern)(text)).toBe(fits);
});

it('says what an expression says, for any pattern and text', () => {
  const letters = fc.constantFrom('a', 'b', '/', '*', '.', '**', '**/');
  const any = fc.array(letters, { maxLength: 8 }).map((l) => l.join(''));
  fc.assert(
    fc.property(
      any,
      fc.string({ unit: fc.constantFrom('a', 'b', '/', '.'), maxLength: 10 }),
      fc.boolean(),
      (p, t, f) => {
        expect(wildcard(p, f)(t)).toBe(slowly(p, f).test(t));
      },
    ),
    { numRuns: 3000 },
  );
});
