import fs from 'node:fs';
import { ROLES } from './roles.tsx';

const css = fs.readFileSync('src/app/globals.css', 'utf8');

/** Of a colour of the sRGB space: its relative luminance (WCAG 2.2). */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const value = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.03928 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(a: string, b: string): number {
  const [less, more] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (more + 0.05) / (less + 0.05);
}

/** The values of a variable, one for each theme. */
function values(name: string): string[] {
  return [...css.matchAll(new RegExp(`^ {2,4}${name}: (#[0-9a-f]{6});`, 'gm'))].map((m) => m[1]);
}

describe('roles of requests', () => {
  it('are told apart without their colour: each has a texture of its own, or is full, or nearly empty', () => {
    const fills = Object.values(ROLES).map((r) => r.fill);
    expect(new Set(fills).size).toBe(fills.length);
    const plain = fills.filter((f) => !f.startsWith('url('));
    expect(plain).toEqual(['var(--needed)', 'var(--content-fill)']);
    const drawn = fs.readFileSync('src/ui/parts/roles.tsx', 'utf8');
    for (const fill of fills) {
      const id = /^url\(#(.+)\)$/.exec(fill)?.[1];
      if (id) expect(drawn).toMatch(new RegExp(`<pattern\\s{1,12}id="${id}"`));
    }
  });

  it('in both themes: the full one against the nearly empty one, and each texture against its ground', () => {
    const [needed, empty, sheet] = ['--needed', '--content-fill', '--sheet'].map(values);
    expect(needed.length).toBeGreaterThanOrEqual(2);
    needed.forEach((full, theme) => {
      expect(contrast(full, empty[theme])).toBeGreaterThan(3);
      for (const name of ['--hinted', '--on-demand', '--in-case', '--wasted'])
        expect(contrast(values(name)[theme], sheet[theme])).toBeGreaterThan(name === '--in-case' ? 2.5 : 3);
    });
  });

  it('have the same textures as cells of the load sheet', () => {
    for (const cell of ['hinted', 'on-demand', 'in-case', 'wasted']) {
      const rule = new RegExp(`\\.cell-${cell}[^{]{0,40}\\{[^}]{0,300}gradient\\(`).test(css);
      expect([cell, rule]).toEqual([cell, true]);
    }
  });
});
