import { planned } from '../../chunks/planned.ts';
import { Reacher } from '../../chunks/reach.ts';
import { startModules } from '../../chunks/start-modules.ts';
import { graphIndex } from '../../snapshot/graph-index.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { ShippedPlan } from './types.ts';

/**
 * What stays in a route's start although some split points need it as well: by its path, with the module in the start, outside of what the split
 * points bring, that imports it or what leads to it.
 */
export function keepersOf(
  { app, plan }: ShippedPlan,
  route: Route,
  splitPoints: readonly string[],
): Map<string, string> {
  const index = graphIndex(app);
  const { deferred } = planned(app, plan).plan;
  const reacher = new Reacher(index, deferred);
  const start = new Set(reacher.from(startModules(app, route)));
  const targets = splitPoints.flatMap((path) => index.moduleAt.get(path) ?? []);
  const piece = new Set(reacher.from(targets));
  const keeper = new Map<number, number>();
  const open: number[] = [];
  for (const m of piece) {
    if (!start.has(m)) continue;
    for (let e = index.inStart[m]; e < index.inStart[m + 1]; e++) {
      const i = index.incoming[e];
      const { from } = app.imports[i];
      if (deferred[i] || piece.has(from) || !start.has(from) || keeper.has(m)) continue;
      keeper.set(m, from);
      open.push(m);
    }
  }
  // What only these lead to is kept with them.
  for (const m of open)
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const i = index.outgoing[e];
      const { to } = app.imports[i];
      if (deferred[i] || !piece.has(to) || keeper.has(to)) continue;
      keeper.set(to, keeper.get(m)!);
      open.push(to);
    }
  return new Map([...keeper].map(([m, by]) => [app.modules[m].path, app.modules[by].path]));
}
