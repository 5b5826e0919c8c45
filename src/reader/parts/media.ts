import type { PartCondition } from '../../core/snapshot/route-types.ts';

/** What asks for a media query in code, by the platform's name and the habits of naming its helpers. */
const ASKS = /matchMedia|useMedia|[mM]ediaQuery|[bB]reakpoint/;

/** Sizes of text in which widths may be given, in pixels of CSS (16 by default). */
const PX_PER_EM = 16;

/** The width that a media query in this text asks for. */
export function mediaIn(text: string): PartCondition | null {
  return ASKS.test(text) ? widthsIn(text) : null;
}

/** The same of the text of a query alone; null where it asks for no width. */
export function widthsIn(text: string): PartCondition | null {
  const [most, least] = [widthOf('max', text), widthOf('min', text)];
  if (most === null && least === null) return null;
  return {
    kind: 'media',
    ...(most === null ? {} : { maxWidth: most }),
    ...(least === null ? {} : { minWidth: least }),
  };
}

function widthOf(side: 'max' | 'min', text: string): number | null {
  const pattern =
    side === 'max'
      ? /\bmax-width:\s{0,9}(\d{1,6}(?:\.\d{1,4})?)(px|r?em)/
      : /\bmin-width:\s{0,9}(\d{1,6}(?:\.\d{1,4})?)(px|r?em)/;
  const match = pattern.exec(text);
  return match && Math.round(Number(match[1]) * (match[2] === 'px' ? 1 : PX_PER_EM));
}

/** The condition that holds where this one doesn't. */
export function opposite(condition: PartCondition): PartCondition {
  if (condition.kind !== 'media') return condition;
  if (condition.maxWidth !== undefined) return { kind: 'media', minWidth: condition.maxWidth + 1 };
  return { kind: 'media', maxWidth: (condition.minWidth ?? 1) - 1 };
}
