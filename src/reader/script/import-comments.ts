import type { Import } from '../../core/snapshot/module-types.ts';
import { constantText, type SyntaxNode } from '../syntax.ts';

/** What comments in a deferred import tell a build. */
export interface ImportComments extends Pick<Import, 'named' | 'ahead'> {
  /** The build leaves the import to the browser. */
  isLeftAlone: boolean;
}

const COMMENT = /\/\*[\s\S]*?\*\/|\/\/[^\n]*/g;

/**
 * Reads the comments between the brackets of an import: `…Ignore`, `…ChunkName: "tide"`, `…Prefetch: true`, `…Preload: true` (a convention that several
 * builds share, each with its own beginning). A name with places to fill, `[request]`, names nothing by itself; where both are asked for, the
 * earlier way counts.
 */
export function importComments(text: string, { start, end, source }: SyntaxNode): ImportComments {
  const { start: from, end: to } = source as SyntaxNode;
  const said = [...`${text.slice(start, from)}\n${text.slice(to, end)}`.matchAll(COMMENT)].map(([c]) => c).join('\n');
  const name = /\w(?:ChunkName|chunkName)["']?\s*:\s*(?:"([^"\n]+)"|'([^'\n]+)'|`([^`\n]+)`)/.exec(said);
  const named = name?.slice(1).find((n) => n !== undefined);
  const asks = (what: string) => new RegExp(`\\w${what}["']?\\s*:\\s*(true|-?\\d+)`).test(said);
  const ahead = asks('Preload') ? ('preload' as const) : asks('Prefetch') ? ('prefetch' as const) : null;
  return {
    isLeftAlone: isLeftAlone(said, constantText(source) !== null),
    ...(named === undefined || /[[\]]/.test(named) ? {} : { named }),
    ...(ahead === null ? {} : { ahead }),
  };
}

/** `kitIgnore: true` leaves any import alone; `@kit-ignore` only silences what a build has to say of an address that isn't constant. */
function isLeftAlone(said: string, isConstant: boolean): boolean {
  if (/\w[iI]gnore["']?\s*:\s*false/.test(said)) return false;
  return /\w[iI]gnore\b/.test(said) || (!isConstant && /-ignore\b/.test(said));
}
