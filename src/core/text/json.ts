import { InputError } from '../errors.ts';

/** No format here nests deeper than some twenty; more is a mistake or an attack. */
const DEEPEST = 200;

/** Parses JSON; throws InputError with line and column where it breaks off, or where it nests too deeply. */
export function parseJson(source: string, fileName: string): unknown {
  const deep = tooDeepAt(source);
  if (deep >= 0)
    throw new InputError(
      'Nested too deeply',
      `Lists and objects stand more than ${DEEPEST} deep in one another, which no file of this kind needs.`,
      placeIn(source, deep, fileName),
    );
  try {
    return JSON.parse(source);
  } catch (error) {
    const said = error instanceof Error ? error.message : String(error);
    const position = Number(/position (\d+)/.exec(said)?.[1] ?? source.length);
    throw new InputError(
      'Broken JSON',
      `${said.replace(/ in JSON at position.*$/, '')}. Mend the file there.`,
      placeIn(source, position, fileName),
    );
  }
}

/** Where a text nests too deeply, outside of its strings; −1 where it doesn't. */
function tooDeepAt(source: string): number {
  let depth = 0;
  for (let at = 0; at < source.length; at++) {
    switch (source.charCodeAt(at)) {
      case 0x22: {
        for (at++; at < source.length && source.charCodeAt(at) !== 0x22; at++) if (source.charCodeAt(at) === 0x5c) at++;
        break;
      }
      case 0x5b:
      case 0x7b:
        if (++depth > DEEPEST) return at;
        break;
      case 0x5d:
      case 0x7d:
        depth--;
    }
  }
  return -1;
}

function placeIn(source: string, position: number, fileName: string): string {
  const before = source.slice(0, position);
  return `${fileName}:${before.split('\n').length}:${position - before.lastIndexOf('\n')}`;
}
