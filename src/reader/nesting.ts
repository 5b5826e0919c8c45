/** Deeper than this no parser is asked: they walk down by calling themselves, and end the program where their stack does. */
const MOST_NESTED = 1000;

const OPENS = new Set(['(', '[', '{']);
const CLOSES = new Set([')', ']', '}']);

/**
 * Whether brackets stand in one another deeper than parsers can follow. Texts and comments are counted as well, which real code
 * doesn't come near to; one pass.
 */
export function nestsTooDeep(text: string, most = MOST_NESTED): boolean {
  let depth = 0;
  for (const letter of text) {
    if (OPENS.has(letter)) {
      if (++depth > most) return true;
    } else if (depth > 0 && CLOSES.has(letter)) depth--;
  }
  return false;
}
