/** The keys that are held while something is clicked. */
export interface Modifiers {
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
}

/**
 * Which rows a click takes to those that are chosen together, or out of them, as lists of files do it: Ctrl (or Command) the
 * one that is clicked, and with the first of them the one that was looked at; Shift all that lie between the two.
 *
 * `ids` has what can be marked of each row, in order: null for one that can't. `at` is the row that is looked at (-1: none).
 */
export function turnedByClick(
  ids: readonly (string | null)[],
  marks: ReadonlySet<string>,
  at: number,
  clicked: number,
  { ctrlKey, metaKey, shiftKey }: Modifiers,
): string[] {
  const some = (rows: readonly (string | null | undefined)[]) => [...new Set(rows.filter((id) => id != null))];
  if (ctrlKey || metaKey) return some(marks.size === 0 ? [ids[at], ids[clicked]] : [ids[clicked]]);
  if (!shiftKey || at < 0) return [];
  const between = ids.slice(Math.min(at, clicked), Math.max(at, clicked) + 1);
  return some(between).filter((id) => !marks.has(id));
}

/** Which rows a step of the arrow keys with Shift takes to those chosen together: the one that is left, and the one that is reached. */
export function turnedByStep(
  ids: readonly (string | null)[],
  marks: ReadonlySet<string>,
  from: number,
  to: number,
): string[] {
  return [ids[from], ids[to]].filter((id) => id != null).filter((id) => !marks.has(id));
}

/** Marks with some turned over: those that weren't there are, and the other way round. */
export function withTurned(marks: ReadonlySet<string>, turned: readonly string[]): ReadonlySet<string> {
  const next = new Set(marks);
  for (const id of turned) if (!next.delete(id)) next.add(id);
  return next;
}
