import { matcher } from './match.ts';

const fits = (pattern: string, path: string) => matcher({ path: pattern })({ path, package: null });

describe('path patterns', () => {
  it.each([
    ['src/crew/**', 'src/crew/a.ts', true],
    ['src/crew/**', 'src/crew/deep/a.ts', true],
    ['src/crew/**', 'src/crews/a.ts', false],
    ['src/*/page.tsx', 'src/crew/page.tsx', true],
    ['src/*/page.tsx', 'src/crew/deep/page.tsx', false],
    ['src/**/page.tsx', 'src/page.tsx', true],
    ['src/**/page.tsx', 'src/crew/deep/page.tsx', true],
    ['*.css', 'base.css', true],
    ['*.css', 'src/base.css', false],
    ['**/*.css', 'src/app/base.css', true],
    ['src/a+b(1).ts', 'src/a+b(1).ts', true],
    ['src/a.ts', 'src/abts', false],
  ])('%s and %s: %s', (pattern, path, expected) => {
    expect(fits(pattern, path)).toBe(expected);
  });

  it('or a package, by its whole name', () => {
    const of = matcher({ package: '@made/up' });
    expect(of({ path: 'x', package: '@made/up' })).toBe(true);
    expect(of({ path: 'x', package: '@made/upper' })).toBe(false);
    expect(of({ path: '@made/up', package: null })).toBe(false);
  });
});
