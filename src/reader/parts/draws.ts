import { INNER_ROWS } from '../../core/load/list-lengths.ts';
import { type DrawnApp, drawnAtOnce, usedBy } from './find-parts.ts';

/** How many times markup draws something. */
export interface TimesDrawn {
  /** Where it names it, as often as the lists around are long. */
  times: number;
  /** The same for each row of lists whose lengths aren't written in the code; of lists within them some rows are counted. */
  rows: number;
  /** The same once answers are there that the module asks for itself. */
  filled: number;
}

/** The modules whose components a module draws as soon as it is drawn itself, with how many times its markup draws them. */
export function drawsOf(path: string, app: DrawnApp): Map<string, TimesDrawn> {
  const draws = new Map<string, TimesDrawn>();
  const module = app.moduleAt(path);
  if (!module || module.package !== null) return draws;
  const asked = new Set(app.callsOf(path).flatMap((c) => (c.onAct ? [] : c.lines)));
  for (const use of module.uses) {
    const { imported, target } = usedBy(path, use, app);
    if (target === undefined || target === path) continue;
    // What is deferred is drawn when it has come.
    if (module.deferred.has(target) || module.deferred.has(imported!) || !drawnAtOnce(use, target, module, app))
      continue;
    const drawn = draws.get(target) ?? { times: 0, rows: 0, filled: 0 };
    draws.set(target, drawn);
    const { times = 1, inLists = 0, after } = use;
    if (inLists > 0) drawn.rows += times * INNER_ROWS ** (inLists - 1);
    else if (after?.lines.some((line) => asked.has(line))) drawn.filled += times;
    else drawn.times += times;
  }
  return draws;
}
