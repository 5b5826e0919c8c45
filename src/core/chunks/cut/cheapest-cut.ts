import { type EffectivePlan, effectivePlan } from '../../plan/effective.ts';
import type { Plan } from '../../plan/types.ts';
import { type GraphIndex, graphIndex, importKey } from '../../snapshot/graph-index.ts';
import type { Import } from '../../snapshot/module-types.ts';
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
 * An import that its module needs at once takes more than detaching, one inside of a package a change of it.
 */
const COST = { good: 100, other: 101, neededAtOnce: 9_900, insidePackage: 100_000 } as const;

/**
 * The smallest set of detachments that frees modules from a route's start: a minimum cut over its static imports from
 * entry, layouts and page. Imports of what is on the first screen, of a start module, or of what leads to one, are never
 * cut; those inside of a package only when nothing else helps. Null when it can't be done that way; no imports when nothing holds them.
 */
export function cheapestCut(snapshot: Snapshot, plan: Plan, route: Route, freed: readonly number[]): Cut | null {
  const index = graphIndex(snapshot);
  const { deferred } = effectivePlan(snapshot, plan);
  const starts = startModules(snapshot, route);
  const forbidden = new Set(starts);
  const later = new Set<number>();
  for (const { place, module } of route.parts)
    (place === 'first screen' ? forbidden : later).add(index.moduleAt.get(module) ?? -1);
  if (freed.some((m) => forbidden.has(m))) return null;

  const wanted = new Set(freed);
  for (const m of leadingTo(snapshot, index, starts)) if (!wanted.has(m)) forbidden.add(m);
  const reached = reachedUntil(snapshot, deferred, starts, wanted);
  const node = new Map(reached.map((m, at) => [m, at + 2]));
  const [source, sink] = [0, 1];
  const flow = new Flow(reached.length + 2);
  for (const m of starts) flow.link(source, node.get(m)!, Number.POSITIVE_INFINITY);
  for (const m of wanted) if (node.has(m)) flow.link(node.get(m)!, sink, Number.POSITIVE_INFINITY);
  const pairs: [number, number][] = [];
  for (const from of reached) {
    if (wanted.has(from)) continue;
    const seen = new Set([from]);
    for (const i of importsOf(index, from)) {
      const { to } = snapshot.imports[i];
      if (deferred[i] || seen.has(to)) continue;
      seen.add(to);
      pairs.push([from, to]);
      const cost = forbidden.has(to) ? Number.POSITIVE_INFINITY : costOf(snapshot, snapshot.imports[i], later);
      flow.link(node.get(from)!, node.get(to)!, cost);
    }
  }
  if (!Number.isFinite(flow.fill(source, sink))) return null;
  const near = flow.reachable(source);
  const cut = pairs.filter(([from, to]) => near[node.get(from)!] && !near[node.get(to)!]);
  const imports = cut.flatMap(([from, to]) =>
    [...importsOf(index, from)].filter((i) => !deferred[i] && snapshot.imports[i].to === to),
  );
  return { imports: imports.map((i) => importKey(snapshot, snapshot.imports[i])).sort() };
}

/** Modules over whose imports, deferred ones too, some are reached: without them nobody comes there. */
function leadingTo(snapshot: Snapshot, index: GraphIndex, targets: readonly number[]): Set<number> {
  const leading = new Set(targets);
  for (const m of leading)
    for (let e = index.inStart[m]; e < index.inStart[m + 1]; e++) leading.add(snapshot.imports[index.incoming[e]].from);
  return leading;
}

function importsOf(index: GraphIndex, from: number): Uint32Array {
  return index.outgoing.subarray(index.outStart[from], index.outStart[from + 1]);
}

/** Modules that start modules reach over static imports, in that order; what the wanted ones import isn't followed. */
function reachedUntil(
  snapshot: Snapshot,
  deferred: EffectivePlan['deferred'],
  starts: readonly number[],
  wanted: ReadonlySet<number>,
): number[] {
  const index = graphIndex(snapshot);
  const reached = new Set(starts);
  // What is added to a set while it is gone through is met as well.
  for (const m of reached) {
    if (wanted.has(m)) continue;
    for (const i of importsOf(index, m)) if (!deferred[i]) reached.add(snapshot.imports[i].to);
  }
  return [...reached];
}

function costOf(snapshot: Snapshot, { from, to, sync }: Import, later: ReadonlySet<number>): number {
  const of = snapshot.modules[to].package;
  if (of !== null && of === snapshot.modules[from].package) return COST.insidePackage;
  const own = later.has(to) || of !== null ? COST.good : COST.other;
  return sync ? COST.neededAtOnce + own : own;
}
