import type { Snapshot, Unresolved } from '../snapshot/types.ts';

/**
 * Imports that lead nowhere now and didn’t before, in their order: a file that was renamed or deleted, or isn’t written yet. What weighs less by that is no gain, for
 * such an app isn’t built. What is left out on purpose isn’t among them.
 */
export function lostImports(before: Pick<Snapshot, 'unresolved'>, now: Pick<Snapshot, 'unresolved'>): Unresolved[] {
  const key = ({ from, specifier }: Unresolved) => JSON.stringify([from, specifier]);
  const known = new Set(before.unresolved.map(key));
  return now.unresolved.filter((u) => !u.leftOut && !known.has(key(u)));
}

const asItIs = (text: string) => text;

/** Such an import in words: `src/board.tsx:4 leads nowhere: ./tiles`. `name`, `quoted`: write the file’s name with its line, and what it asks for. */
export function lostWords({ from, line, specifier }: Unresolved, name = asItIs, quoted = asItIs): string {
  return `${name(`${from}:${line}`)} leads nowhere: ${quoted(specifier)}`;
}
