import type { Rehearsal, RehearsedRun } from './types.ts';

/** The run that is in the middle by when it was interactive, as far as it is of the landing: its times belong together, which medians of each don’t. */
export function middleRun({ runs }: Pick<Rehearsal, 'runs'>): RehearsedRun {
  const at = (r: RehearsedRun) => r.moments.interactive ?? r.moments.load ?? 0;
  return ofLanding([...runs].sort((a, b) => at(a) - at(b))[(runs.length - 1) >> 1]);
}

/** A run without what began with an act or after it. */
function ofLanding(run: RehearsedRun): RehearsedRun {
  const { firstAct } = run;
  if (firstAct === undefined) return run;
  return {
    ...run,
    requests: run.requests.filter((r) => r.discovered < firstAct),
    tasks: run.tasks.filter((t) => t.start < firstAct),
  };
}
