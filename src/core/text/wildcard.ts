/**
 * Patterns in which `*` stands for letters of one name and `**` for anything, folders included; `**` with a `/` after it also
 * for no folder at all. A text is tried in one pass over its letters, whatever the pattern: time grows with the length of
 * both, never faster.
 */

/** The longest pattern that is taken. */
export const LONGEST_PATTERN = 500;

type Token = { letter: string } | { any: 'name' | 'all' | 'folders' };

function tokensOf(pattern: string, folders: boolean): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < pattern.length; at++) {
    if (pattern[at] !== '*') tokens.push({ letter: pattern[at] });
    else if (!folders) tokens.push({ any: 'all' });
    else if (pattern[at + 1] !== '*') tokens.push({ any: 'name' });
    else {
      const inFolders = pattern[at + 2] === '/';
      tokens.push({ any: inFolders ? 'folders' : 'all' });
      at += inFolders ? 2 : 1;
    }
  }
  return tokens;
}

/** A test of whole texts against a pattern. With `folders` false, `*` stands for any letters at all. */
export function wildcard(pattern: string, folders = true): (text: string) => boolean {
  const first = pattern.indexOf('*');
  if (first < 0) return (text) => text === pattern;
  const begins = pattern.slice(0, first);
  const ends = pattern.slice(pattern.lastIndexOf('*') + 1).replace(/^\//, '');
  const tokens = tokensOf(pattern, folders);
  return (text) => text.startsWith(begins) && text.endsWith(ends) && matches(tokens, text);
}

/** Follows all ways through the tokens at once; state `n` means that the tokens before `n` have been met. */
function matches(tokens: readonly Token[], text: string): boolean {
  const end = tokens.length;
  let now = new Uint8Array(end + 1);
  /** Within folders that a token has begun to skip. */
  let inside = new Uint8Array(end + 1);
  const enter = (states: Uint8Array, at: number) => {
    for (let state = at; !states[state]; state++) {
      states[state] = 1;
      const token = tokens[state];
      // What may stand for nothing is passed at once.
      if (!token || !('any' in token)) return;
    }
  };
  enter(now, 0);
  // By code units, as the tokens are.
  for (let place = 0; place < text.length; place++) {
    const letter = text[place];
    const next = new Uint8Array(end + 1);
    const within = new Uint8Array(end + 1);
    let alive = false;
    for (let state = 0; state < end; state++) {
      if (!now[state] && !inside[state]) continue;
      const token = tokens[state];
      if ('letter' in token) {
        if (!now[state] || token.letter !== letter) continue;
        enter(next, state + 1);
      } else if (token.any === 'folders') {
        within[state] = 1;
        if (letter === '/') enter(next, state + 1);
      } else if (token.any === 'all' || letter !== '/') enter(next, state);
      else continue;
      alive = true;
    }
    if (!alive) return false;
    now = next;
    inside = within;
  }
  return now[end] === 1;
}
