import { INNER_ROWS, ROWS } from '../../core/load/list-lengths.ts';
import type { Shape } from '../../reader/answers/shape.ts';

/** What lies deeper than this is empty. */
const DEEPEST = 6;
/** The day that made-up dates count from. */
const FIRST_DAY = Date.UTC(2026, 0, 5, 9);
const DAY_MS = 86_400_000;

/** A made-up value of a shape, the same each time; its lists are as long as predictions count them. */
export function madeUp(shape: Shape): unknown {
  return made(shape, { name: '', at: 0, rows: ROWS, depth: 0 });
}

interface Place {
  /** The name of the field. */
  name: string;
  /** Which of a list's rows it is in. */
  at: number;
  rows: number;
  depth: number;
}

function made(shape: Shape, place: Place): unknown {
  const { at, rows, depth } = place;
  const inner = { ...place, depth: depth + 1 };
  switch (shape.is) {
    case 'nothing':
      return null;
    case 'flag':
      return at % 3 === 0;
    case 'date':
      return dateOf(at);
    case 'number':
      return numberOf(place);
    case 'text':
      return textOf(place);
    case 'one of':
      return shape.values[at % shape.values.length] ?? null;
    case 'any of':
      return made(shape.shapes[at % shape.shapes.length], inner);
    case 'list':
      if (depth > DEEPEST) return [];
      return Array.from({ length: rows }, (_, row) => made(shape.of, { ...inner, at: row, rows: INNER_ROWS }));
    case 'record':
      return depth > DEEPEST ? {} : { one: made(shape.of, inner), two: made(shape.of, { ...inner, at: at + 1 }) };
    case 'object':
      if (depth > DEEPEST) return null;
      return Object.fromEntries(shape.fields.map(({ name, of }) => [name, made(of, { ...inner, name })]));
  }
}

const dateOf = (at: number) => new Date(FIRST_DAY + at * DAY_MS).toISOString();

/** What a text holds goes by the name of its field: convention. */
function textOf({ name, at }: Place): string {
  const n = at + 1;
  if (/(^|_)id$|Id$|^key$|^slug$|^code$|^sku$/.test(name))
    return `${name.toLowerCase().replace(/_?id$/, '') || 'no'}-${n}`;
  if (/(At|On|Date|_at|_on)$|^(date|day|time|created|updated|when)$/.test(name)) return dateOf(at);
  if (/e-?mail/i.test(name)) return `person${n}@made-up.test`;
  if (/ur[il]|href|link/i.test(name)) return `/made-up/${n}`;
  if (/image|photo|avatar|icon|src$|picture|thumb/i.test(name)) return 'data:image/gif;base64,R0lGODlhAQABAAAAACw=';
  if (/colou?r/i.test(name)) return ['#88aacc', '#cc8866', '#669966'][at % 3];
  if (/description|text|body|content|note|comment|summary|message/i.test(name))
    return `Made-up ${name} ${n}: some words that stand where others will stand once the server is asked.`;
  return name === '' ? `Made-up ${n}` : `Made-up ${name} ${n}`;
}

function numberOf({ name, at }: Place): number {
  if (/(^|_)id$|Id$/.test(name)) return at + 1;
  if (/lat(itude)?$/i.test(name)) return 54 + at / 10;
  if (/l(on|ng)(gitude)?$/i.test(name)) return 8 + at / 10;
  if (/(At|Date|time(stamp)?)$/.test(name)) return FIRST_DAY + at * DAY_MS;
  if (/^(total|count|pages?|size|length)$/i.test(name)) return ROWS;
  if (/share|ratio|percent|progress|rate/i.test(name)) return ((at * 7) % 10) / 10;
  return ((at * 37) % 90) + 10;
}
