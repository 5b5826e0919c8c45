import { carriedWeights, type Weight } from '../chunks/carried.ts';
import { type Cut, cheapestCut } from '../chunks/cut/cheapest-cut.ts';
import { type Moved, movedBy } from '../chunks/moved.ts';
import { Reacher } from '../chunks/reach.ts';
import { startModules } from '../chunks/start-modules.ts';
import { withDecision } from '../plan/decisions.ts';
import { effectivePlan } from '../plan/effective.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** What of a piece of code leaves a route's start by decisions, what stays, and who keeps it. */
export interface Hold {
  leaves: Weight & { count: number; heaviest: string[] };
  /** Of what the piece needs, what stays in the start. */
  stays: Weight & { count: number };
  /** Where others reach into what stays: each with the importers in the start that hold it, the heaviest first. */
  holds: { module: string; weight: Weight; by: { path: string; line: number; key: string }[] }[];
  /** The fewest further detachments that free most of what stays, and what leaves then; null when it can't be done. */
  cut: (Cut & { frees: string; leaves: Weight; decisions: Decision[] }) | null;
  moved: Moved[];
}

const MOST = 5;

/**
 * Explains a piece of code (a module with all that it imports) on one route under a plan with more decisions laid on
 * top: nothing for a split point as it is, its detachment for an import. Null for a module that isn't there.
 */
export function explainHold(
  snapshot: Snapshot,
  plan: Plan,
  decisions: Decision[],
  route: Route,
  target: string,
): Hold | null {
  const index = graphIndex(snapshot);
  const module = index.moduleAt.get(target);
  if (module === undefined) return null;
  const after = decisions.reduce(withDecision, plan);
  const starts = startModules(snapshot, route);
  const startOf = (p: Plan) => new Set(new Reacher(index, effectivePlan(snapshot, p).deferred).from(starts));
  const before = startOf(plan);
  const now = decisions.length === 0 ? before : startOf(after);
  const { deferred } = effectivePlan(snapshot, after);
  const piece = new Set(new Reacher(index, deferred).from([module]));
  const left = [...before].filter((m) => !now.has(m));
  const stay = [...piece].filter((m) => now.has(m));
  const holds = holdsOf(snapshot, deferred, starts, piece, now);
  return {
    leaves: { ...weightOf(snapshot, left), count: left.length, heaviest: heaviest(snapshot, left) },
    stays: { ...weightOf(snapshot, stay), count: stay.length },
    holds: holds.slice(0, MOST),
    cut:
      holds.length === 0 ? null : cutFor(snapshot, after, route, heart(snapshot, stay, holds[0].module), now, startOf),
    moved: decisions.length === 0 ? [] : movedBy(snapshot, plan, decisions),
  };
}

/** Modules of the piece that somebody outside of it imports, weighed by what they alone keep in the start. */
function holdsOf(
  snapshot: Snapshot,
  deferred: Uint8Array,
  starts: readonly number[],
  piece: ReadonlySet<number>,
  start: ReadonlySet<number>,
): Hold['holds'] {
  const index = graphIndex(snapshot);
  const carried = carriedWeights(snapshot, index, deferred, starts);
  const holds: Hold['holds'] = [];
  for (const m of piece) {
    if (!start.has(m)) continue;
    const by: Hold['holds'][number]['by'] = [];
    for (let e = index.inStart[m]; e < index.inStart[m + 1]; e++) {
      const item = snapshot.imports[index.incoming[e]];
      if (deferred[index.incoming[e]] || piece.has(item.from) || !start.has(item.from)) continue;
      by.push({ path: snapshot.modules[item.from].path, line: item.line, key: importKey(snapshot, item) });
    }
    if (by.length > 0) holds.push({ module: snapshot.modules[m].path, weight: carried.ofModule(m) ?? NOTHING, by });
  }
  return holds.sort((a, b) => b.weight.minified - a.weight.minified || (a.module < b.module ? -1 : 1));
}

const NOTHING: Weight = { minified: 0, compressed: 0 };

/** What is worth freeing: the package that makes up most of what stays, else the heaviest hold. */
function heart(snapshot: Snapshot, stay: readonly number[], hold: string): { name: string; modules: number[] } {
  const packages = new Map<string, number[]>();
  for (const m of stay) {
    const of = snapshot.modules[m].package;
    if (of !== null) packages.set(of, [...(packages.get(of) ?? []), m]);
  }
  const all = weightOf(snapshot, stay).minified;
  for (const [name, modules] of packages) if (weightOf(snapshot, modules).minified > all / 2) return { name, modules };
  return { name: hold, modules: [graphIndex(snapshot).moduleAt.get(hold)!] };
}

function cutFor(
  snapshot: Snapshot,
  plan: Plan,
  route: Route,
  freed: { name: string; modules: number[] },
  start: ReadonlySet<number>,
  startOf: (plan: Plan) => Set<number>,
): Hold['cut'] {
  const cut = cheapestCut(snapshot, plan, route, freed.modules);
  if (!cut || cut.imports.length === 0) return null;
  const decisions = cut.imports.map((key): Decision => ({ kind: 'detach', import: key }));
  const without = startOf(decisions.reduce(withDecision, plan));
  const leaves = weightOf(
    snapshot,
    [...start].filter((m) => !without.has(m)),
  );
  return { ...cut, frees: freed.name, leaves, decisions };
}

function weightOf(snapshot: Snapshot, modules: readonly number[]): Weight {
  const sum = { minified: 0, compressed: 0 };
  for (const m of modules) {
    sum.minified += snapshot.modules[m].bytes.minified;
    sum.compressed += snapshot.modules[m].bytes.marginal;
  }
  return sum;
}

function heaviest(snapshot: Snapshot, modules: readonly number[]): string[] {
  return [...modules]
    .sort((a, b) => snapshot.modules[b].bytes.minified - snapshot.modules[a].bytes.minified)
    .slice(0, MOST)
    .map((m) => snapshot.modules[m].path);
}
