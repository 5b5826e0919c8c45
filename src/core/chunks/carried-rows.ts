import { effectivePlan } from '../plan/effective.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import { landingShares } from '../snapshot/landing-shares.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { carriedWeights, type Weight } from './carried.ts';
import { type Moved, movedBy } from './moved.ts';
import { planned } from './planned.ts';
import { startModules } from './start-modules.ts';

/** One import (parallel ones of a pair of modules count as one) and what it carries out of a start. */
export interface CarriedImport {
  from: string;
  to: string;
  line: number;
  own: number;
  leaves: number;
  moved: Moved[];
}

export interface CarriedRows {
  startBytes: number;
  imports: CarriedImport[];
  modules: { path: string; own: number; leaves: number }[];
}

/** Carried weight (minified bytes) of every import and module of a route's start, heaviest first, with what moves. */
export function carriedRows(snapshot: Snapshot, plan: Plan, route: Route): CarriedRows {
  const index = graphIndex(snapshot);
  const {
    plan: { deferred },
    graph,
  } = planned(snapshot, plan);
  const carried = carriedWeights(snapshot, index, deferred, startModules(snapshot, route));
  const imports: CarriedImport[] = [];
  for (const from of carried.modules) {
    const pairs = new Map<number, number[]>();
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      if (deferred[i]) continue;
      const { to } = snapshot.imports[i];
      pairs.set(to, [...(pairs.get(to) ?? []), i]);
    }
    for (const [to, all] of pairs) {
      const leaves = carried.ofImport(from, to).minified;
      const decisions = all.map(
        (i): Decision => ({ kind: 'detach', import: importKey(snapshot, snapshot.imports[i]) }),
      );
      imports.push({
        from: snapshot.modules[from].path,
        to: snapshot.modules[to].path,
        line: snapshot.imports[all[0]].line,
        own: snapshot.modules[to].bytes.minified,
        leaves,
        moved: leaves === 0 ? [] : movedBy(snapshot, plan, decisions, graph).filter((m) => m.bytes > 0),
      });
    }
  }
  return {
    startBytes: carried.start.minified,
    imports: imports.sort((a, b) => b.leaves - a.leaves || b.own - a.own || (a.to < b.to ? -1 : 1)),
    modules: [...carried.modules]
      .map((m) => ({
        path: snapshot.modules[m].path,
        own: snapshot.modules[m].bytes.minified,
        leaves: carried.ofModule(m)?.minified ?? 0,
      }))
      .sort((a, b) => b.leaves - a.leaves || (a.path < b.path ? -1 : 1)),
  };
}

/**
 * What leaves the starts of all routes, weighed by their share of the landings, when a pair of modules is detached: expected bytes per landing.
 */
export function carriedOverRoutes(
  snapshot: Snapshot,
  plan: Plan,
  pair: { from: string; to: string },
): { expected: Weight; routes: { pattern: string; leaves: Weight }[] } {
  const index = graphIndex(snapshot);
  const { deferred } = effectivePlan(snapshot, plan);
  const [from, to] = [index.moduleAt.get(pair.from), index.moduleAt.get(pair.to)];
  const expected: Weight = { minified: 0, compressed: 0 };
  if (from === undefined || to === undefined) return { expected, routes: [] };
  const shares = landingShares(snapshot.routes);
  const routes = snapshot.routes.map((route) => {
    const carried = carriedWeights(snapshot, index, deferred, startModules(snapshot, route));
    const leaves = carried.ofImport(from, to);
    const share = shares.get(route.pattern) ?? 0;
    expected.minified += leaves.minified * share;
    expected.compressed += leaves.compressed * share;
    return { pattern: route.pattern, leaves };
  });
  return { expected, routes: routes.filter((r) => r.leaves.minified > 0) };
}
