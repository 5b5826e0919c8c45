import type { FontDisplay } from '../../core/snapshot/route-types.ts';
import { FONT_DISPLAYS } from '../../core/snapshot/route-types.ts';
import { SourceText } from '../source-text.ts';

/** A font that a sheet names, by the file that browsers take. */
export interface FontFace {
  family: string;
  url: string;
  display: FontDisplay;
  line: number;
}

/** What a sheet says of fonts. */
export interface SheetFonts {
  /** Upright ones of normal weight that have Latin letters; one for each family. */
  faces: FontFace[];
  /** Families that the text of a page is written in: those of `body`, `html`, `:root` and `*`, the first of each list. */
  ofText: string[];
}

/**
 * Reads the fonts of a style sheet (CSS Fonts 4): of several files for one family the one whose letters a page in Latin
 * needs first. Null where the sheet says nothing of fonts.
 */
export function fontsIn(css: string): SheetFonts | null {
  if (!/font/i.test(css)) return null;
  // Comments leave their lines behind, so that those after them keep theirs.
  const plain = css.replace(/\/\*[\s\S]*?\*\//g, (comment) => comment.replace(/[^\n]/g, ' '));
  const lines = new SourceText(plain);
  const faces = new Map<string, FontFace>();
  for (const { 1: body, index } of plain.matchAll(/@font-face\s*\{([^{}]*)\}/gi)) {
    const face = faceOf(body);
    if (face && !faces.has(face.family)) faces.set(face.family, { ...face, line: lines.place(index).line });
  }
  const variables = new Map([...plain.matchAll(/(--[\w-]+)\s*:\s*([^;{}]*)/g)].map(([, name, value]) => [name, value]));
  const ofText = [...plain.matchAll(/([^{}]*)\{([^{}]*)\}/g)].flatMap(([, selectors, body]) =>
    selectors.split(',').some((s) => /^\s*(html|body|:root|\*)\s*$/.test(s)) ? familyIn(body, variables) : [],
  );
  return faces.size + ofText.length === 0 ? null : { faces: [...faces.values()], ofText };
}

function faceOf(body: string): Omit<FontFace, 'line'> | null {
  const value = (name: string) => new RegExp(`(?:^|[;\\s])${name}\\s*:\\s*([^;]*)`, 'i').exec(body)?.[1].trim();
  const family = value('font-family');
  const url = /url\(\s*(?:"([^"]*)"|'([^']*)'|([^)"'\s]*))\s*\)/i
    .exec(value('src') ?? '')
    ?.slice(1)
    .find(Boolean);
  if (family === undefined || url === undefined) return null;
  const weight = value('font-weight') ?? 'normal';
  const [least, most = least] = weight.split(/\s+/).map((w) => (w === 'normal' ? 400 : w === 'bold' ? 700 : Number(w)));
  const isUpright = /^(normal)?$/.test(value('font-style') ?? '') && least <= 400 && most >= 400;
  if (!isUpright || !hasLatin(value('unicode-range'))) return null;
  const display = FONT_DISPLAYS.find((d) => d === value('font-display')) ?? 'auto';
  return { family: bareName(family), url, display };
}

/** Whether the letter a is among the characters that a face says it has; it has all where it says nothing. */
function hasLatin(range: string | undefined): boolean {
  if (range === undefined) return true;
  return range.split(',').some((piece) => {
    const [, from, to = from] = /U\+([0-9a-f?]+)(?:-([0-9a-f]+))?/i.exec(piece) ?? [];
    if (from === undefined) return false;
    const least = Number.parseInt(from.replaceAll('?', '0'), 16);
    return least <= 0x61 && Number.parseInt(to.replaceAll('?', 'F'), 16) >= 0x61;
  });
}

/** The first family that a rule gives, by `font-family` or at the end of `font`. */
function familyIn(body: string, variables: ReadonlyMap<string, string>): string[] {
  const said =
    /(?:^|[;\s])font-family\s*:\s*([^;]*)/i.exec(body)?.[1] ?? /(?:^|[;\s])font\s*:\s*([^;]*)/i.exec(body)?.[1];
  if (said === undefined) return [];
  const filled = said.replace(/var\(\s*(--[\w-]+)[^()]*\)/g, (whole, name: string) => variables.get(name) ?? whole);
  const [first] = filled.split(',');
  const quoted = /["']([^"']+)["']/.exec(first)?.[1];
  // In the short form the family comes after size and line height.
  const bare = first.replace(/^.*\d\S*\s+/, '').trim();
  return quoted !== undefined ? [quoted] : bare === '' || bare.startsWith('var(') ? [] : [bareName(bare)];
}

function bareName(name: string): string {
  return name.trim().replace(/^["']|["']$/g, '');
}
