import type { Screens } from './types.ts';

/** Widths of the screen as a media query (Media Queries Level 4); null where any is meant. */
export function mediaQuery({ minWidth, maxWidth }: Screens): string | null {
  const said = [
    ...(minWidth === undefined ? [] : [`(min-width: ${minWidth}px)`]),
    ...(maxWidth === undefined ? [] : [`(max-width: ${maxWidth}px)`]),
  ];
  return said.length === 0 ? null : said.join(' and ');
}
