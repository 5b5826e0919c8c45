import type { Rehearsal, RehearsedRun } from './types.ts';

/** The run that is in the middle by when it was interactive: its times belong together, which medians of each don’t. */
export function middleRun({ runs }: Pick<Rehearsal, 'runs'>): RehearsedRun {
  const at = (r: RehearsedRun) => r.moments.interactive ?? r.moments.load ?? 0;
  return [...runs].sort((a, b) => at(a) - at(b))[(runs.length - 1) >> 1];
}
