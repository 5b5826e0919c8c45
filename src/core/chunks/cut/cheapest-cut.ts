import { effectivePlan } from '../../plan/effective.ts';
import type { Plan } from '../../plan/types.ts';
import { graphIndex, importKey } from '../../snapshot/graph-index.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { startModules } from '../start-modules.ts';
import { Flow } from './flow.ts';

/** The fewest imports to be detached so that something leaves a start. */
export interface Cut {
  /** Keys of the imports, in the order of paths; several that lead from one module to one other are all named. */
  imports: string[];
}

/**
 * How bad each import is to detach. Few imports come first; among as few, those of parts that are made to come later and
 * those that lead into a package, which leave the app's own code where it is.
 * An import that its module needs while it starts takes more than detaching, one inside of a package a change of it.
 */
const COST = { good: 100, other: 101, neededAtOnce: 10_000, insidePackage: 100_000 } as const;

/**
 * The smallest set of detachments that frees modules from a route's start: a minimum cut over its static imports from
 * entry, layouts and page. Imports of what is on the first screen, or of a start module, are never cut; those inside of
 * a package only when nothing else helps. Null when it can't be done that way; no imports when nothing holds them.
 */
export function cheapestCut(snapshot: Snapshot, plan: Plan, route: Route, freed: readonly number[]): Cut | null {
  const index = graphIndex(snapshot);
  const { deferred } = effectivePlan(snapshot, plan);
  const starts = startModules(snapshot, route);
  const forbidden = new Set(starts);
  const later = new Set<number>();
  for (const { place, module } of route.parts)
    (place === 'first screen' ? forbidden : later).add(index.moduleAt.get(module) ?? -1);
  const wanted = new Set(freed);
  if (freed.some((m) => forbidden.has(m))) return null;

  const node = new Map<number, number>();
  const reached: number[] = [];
  const enter = (m: number) => {
    if (node.has(m)) return;
    node.set(m, reached.length + 2);
    reached.push(m);
  };
  for (const m of starts) enter(m);
  for (const m of reached) {
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const i = index.outgoing[e];
      if (!deferred[i] && !wanted.has(m)) enter(snapshot.imports[i].to);
    }
  }
  const [source, sink] = [0, 1];
  const flow = new Flow(reached.length + 2);
  for (const m of starts) flow.link(source, node.get(m)!, Number.POSITIVE_INFINITY);
  for (const m of wanted) if (node.has(m)) flow.link(node.get(m)!, sink, Number.POSITIVE_INFINITY);
  const pairs = new Map<number, { from: number; to: number }>();
  for (const from of reached) {
    if (wanted.has(from)) continue;
    const seen = new Set<number>();
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      const { to } = snapshot.imports[i];
      if (deferred[i] || to === from || seen.has(to)) continue;
      seen.add(to);
      const of = snapshot.modules[to].package;
      const inside = of !== null && of === snapshot.modules[from].package;
      const { sync } = snapshot.imports[i];
      const cost = inside
        ? COST.insidePackage
        : sync
          ? COST.neededAtOnce
          : later.has(to) || of !== null
            ? COST.good
            : COST.other;
      pairs.set(flow.link(node.get(from)!, node.get(to)!, forbidden.has(to) ? Number.POSITIVE_INFINITY : cost), {
        from,
        to,
      });
    }
  }
  if (!Number.isFinite(flow.fill(source, sink))) return null;
  const near = flow.reachable(source);
  const imports: string[] = [];
  for (const { from, to } of pairs.values()) {
    if (!near[node.get(from)!] || near[node.get(to)!]) continue;
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      if (!deferred[i] && snapshot.imports[i].to === to) imports.push(importKey(snapshot, snapshot.imports[i]));
    }
  }
  return { imports: imports.sort() };
}
