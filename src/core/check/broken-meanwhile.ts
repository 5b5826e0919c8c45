import type { Failed, Snapshot } from '../snapshot/types.ts';

/**
 * Files that can't be read now and could before: in the middle of an edit a file is mostly broken, and what is read of the app then says
 * nothing about it. `changed`: files that were saved since; what others of them broke counts as well.
 */
export function brokenMeanwhile(
  before: Pick<Snapshot, 'failed'>,
  now: Pick<Snapshot, 'failed'>,
  changed: ReadonlySet<string>,
): Failed[] {
  const known = new Set(before.failed.map((f) => f.path));
  return now.failed.filter((f) => !known.has(f.path) && changed.has(f.path));
}
