import { broughtOnlyBy } from '../../core/chunks/brought-by.ts';
import { startModules } from '../../core/chunks/start-modules.ts';
import { elsewhere } from '../../core/load/landing.ts';
import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { Part, Route } from '../../core/snapshot/route-types.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { shortName } from '../../core/text/short-name.ts';
import type { Act } from '../runs/run-sheet.ts';
import { withIds } from './find-parts.ts';

/** What is lighter is there at once, or nearly, whenever it is wanted: minified bytes. */
const LEAST = 8000;
/** How many of those who come to a route do one thing there, as long as nobody says. */
const SHARE = 0.2;

/**
 * Code that a route only runs when somebody acts, as parts behind these acts, so that its waits are known before and after it is
 * deferred: what handlers call, themselves or through other modules, and what only that brings. `acts`: what somebody does, by import;
 * only what a handler of this route's own code answers counts; `isTold`: routes whose parts a person wrote down, which stay as they are.
 */
export function withActParts(
  snapshot: Snapshot,
  acts: ReadonlyMap<number, readonly Act[]>,
  isTold: (route: Route) => boolean,
): Route[] {
  if (acts.size === 0) return snapshot.routes;
  return snapshot.routes.map((route) => {
    const parts = isTold(route) ? [] : actParts(snapshot, route, acts);
    return parts.length === 0 ? route : { ...route, parts: withIds([...route.parts, ...parts]) };
  });
}

function actParts(snapshot: Snapshot, route: Route, acts: ReadonlyMap<number, readonly Act[]>): Part[] {
  const { modules, imports } = snapshot;
  const index = graphIndex(snapshot);
  const roots = startModules(snapshot, route);
  const closed = elsewhere(snapshot, route, roots);
  const within = new Set(roots);
  for (const m of within)
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const { to } = imports[index.outgoing[e]];
      if (!closed.has(to)) within.add(to);
    }
  const pieces = broughtOnlyBy(
    snapshot,
    index,
    { roots, modules: within },
    () => true,
    (i) => acts.has(i),
  );
  const known = new Set([...route.parts.map((p) => p.module), ...route.layouts, route.page]);
  return pieces.flatMap((piece) => {
    const found: Part[] = [];
    for (const i of piece.weight < LEAST ? [] : piece.imports) {
      const { path, package: name } = modules[imports[i].to];
      const act = acts.get(i)!.find((a) => within.has(index.moduleAt.get(a.path) ?? -1));
      if (!act || known.has(path)) continue;
      known.add(path);
      const called = name ?? shortName(path).replace(/[-_]/g, ' ');
      found.push({
        id: called,
        name: called,
        module: path,
        place: 'action',
        action: act.words,
        interactive: true,
        share: SHARE,
        needs: [],
        evidence: { path: modules[imports[i].from].path, line: imports[i].line },
      });
    }
    return found;
  });
}
