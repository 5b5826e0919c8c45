import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import type { LinkHint, MarkupItem } from '../load/types.ts';
import type { FontDisplay } from '../snapshot/route-types.ts';
import { simulate } from './simulate.ts';

const STYLE = 0;
const FONT = 1;

/** A page whose text is written in a font that its style sheet names. */
function load(display: FontDisplay, head: LinkHint[] = [], font = 24_000, second: FontDisplay | null = null) {
  const markup: MarkupItem[] = [
    ...head.map((hint): MarkupItem => ({ at: 100, tag: 'link', ...hint })),
    { at: 200, tag: 'link', rel: 'stylesheet', resource: STYLE, chosen: false },
    { at: 300, tag: 'script', group: 0, mode: 'defer' },
    { at: 1000, tag: 'body' },
    { at: 1500, tag: 'text', part: 0 },
  ];
  const text = screenPart('lead', {
    drawnBy: 'document',
    interactive: false,
    fonts: [
      { resource: FONT, declaredBy: STYLE, display },
      ...(second ? [{ resource: 3, declaredBy: STYLE, display: second }] : []),
    ],
  });
  const program = page(
    markup,
    [
      file('/a.css', { type: 'style', bytes: 12_000, serverMs: 5 }),
      file('/f.woff2', { type: 'font', bytes: font, serverMs: 5, purpose: 'content' }),
      file('/a.js', { bytes: 40_000 }),
      file('/g.woff2', { type: 'font', bytes: 90_000, serverMs: 5, purpose: 'content' }),
    ],
    { parts: [text], groups: [{ name: 'a', resources: [2], after: [], loader: 'listed' }] },
  );
  const timeline = simulate(program, ROUND);
  const at = (state: string) => timeline.reveals.find((r) => r.state === state)?.at ?? Number.NaN;
  const request = (resource: number) => timeline.requests.find((r) => r.resource === resource)!;
  return { ...timeline.moments, style: request(STYLE), font: request(FONT), shown: at('shown'), inFont: at('in font') };
}

const ahead = (crossorigin: boolean): LinkHint => ({
  ...{ rel: 'preload', resource: FONT, as: 'font', crossorigin, chosen: true },
});

describe('a font that a style sheet names', () => {
  it('is asked for once the text can be laid out, before all else, and holds the load event', () => {
    const { style, font, load: loaded } = load('auto');
    expect(font.discovered - style.end).toBeCloseTo(5, 0);
    expect(font.priority).toBe(0);
    expect(loaded).toBeGreaterThan(font.end);
  });

  it('leaves the text invisible until it is there, but not the first content', () => {
    const { firstContent, shown, font, style } = load('auto');
    expect(firstContent - style.end).toBeLessThan(35);
    expect(shown - font.end).toBeCloseTo(30, 0);
  });

  it('takes the place of another font where the sheet says so', () => {
    const { firstContent, shown, inFont, font } = load('swap');
    expect(shown).toBeCloseTo(firstContent, 6);
    expect(inFont - font.end).toBeCloseTo(10, 0);
  });

  it('is left out where it comes too late for an optional one', () => {
    const { firstContent, shown, inFont, font } = load('optional');
    expect(shown).toBeCloseTo(firstContent, 6);
    expect(inFont).toBeNaN();
    expect(font.end).toBeGreaterThan(shown);
  });

  it('gives way to another one after three seconds', () => {
    const { firstContent, shown, inFont, font } = load('block', [], 4_000_000);
    expect(shown - firstContent).toBeCloseTo(3000, 0);
    expect(inFont).toBeGreaterThan(font.end);
    const short = load('fallback', [], 400_000);
    expect(short.shown - short.firstContent).toBeCloseTo(100, 0);
  });
});

describe('text in two fonts', () => {
  it('shows when all of it can be seen, and is in its fonts when the last of them is there', () => {
    const both = load('auto', [], 24_000, 'auto');
    expect(both.shown).toBeGreaterThan(both.font.end + 60);
    expect(both.inFont).toBeNaN();
    const swapped = load('swap', [], 24_000, 'swap');
    expect(swapped.shown).toBeCloseTo(swapped.firstContent, 6);
    expect(swapped.inFont).toBeGreaterThan(swapped.font.end + 60);
    // One is there with the first frame, the other one takes the place of another font.
    const one = load('swap', [ahead(true)], 24_000, 'swap');
    expect(one.inFont).toBeGreaterThan(one.shown);
  });
});

describe('a font that is fetched ahead', () => {
  it('comes with the style, and the first frame waits for it, so that text shows in its font', () => {
    const { shown, firstContent, font, inFont } = load('auto', [ahead(true)]);
    expect(font.discovered).toBeLessThan(load('auto').font.discovered - 80);
    expect(shown).toBeCloseTo(firstContent, 6);
    expect(firstContent).toBeGreaterThan(font.end);
    expect(firstContent - font.end).toBeLessThan(40);
    expect(inFont).toBeNaN();
    expect(shown).toBeLessThan(load('auto').shown - 40);
  });

  it('holds the first frame up by a tenth of a second at most', () => {
    const without = load('auto', [], 900_000).firstContent;
    const held = load('auto', [ahead(true)], 900_000).firstContent;
    expect(held - without).toBeGreaterThan(90);
    expect(held - without).toBeLessThan(130);
  });
});
