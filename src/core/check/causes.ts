import { carriedRows } from '../chunks/carried-rows.ts';
import { PlanFigures } from '../compare/figures.ts';
import { startsOf } from '../inventory/starts.ts';
import { stateOf } from '../limits/limits.ts';
import type { Limit } from '../limits/types.ts';
import { withDecision } from '../plan/decisions.ts';
import { takenOut } from '../plan/taken-out.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** An import by which code came to a moment that has a limit. */
export interface LimitCause {
  from: string;
  to: string;
  line: number;
  /** Minified bytes that came by it. */
  bytes: number;
  modules: number;
  /** Not there, or not at this moment, when the limits were set. */
  isNew: boolean;
  /** From the entry, or the part that is acted on, to the heaviest of what came. */
  path: { path: string; line: number | null }[];
}

/** A detachment that would bring a measure down. */
export interface Recover {
  import: string;
  /** What was tried: the import detached, and (where its place doesn't say) fetched at first use. */
  decisions: Decision[];
  from: string;
  to: string;
  line: number;
  /** What the measure would come to, and how much less that is. */
  value: number;
  saves: number;
  /** Whether it alone keeps the limit. */
  enough: boolean;
  /** Why it takes more than detaching, where it does. */
  blocked?: string;
}

const MOST = 5;
/** Of what the heaviest brought: less isn’t worth a line. */
const LEAST_SHARE = 0.02;

/** Modules that arrive for a limit's moment, and where that begins. */
interface Moment {
  snapshot: Snapshot;
  deferred: Uint8Array;
  modules: Set<number>;
  from: number[];
  /** Modules whose deferred imports the moment makes by itself. */
  asked: Set<number>;
}

/** What a moment is of: the landing on a route, or the part that is acted on there. */
export type MomentOf = Pick<Limit, 'route' | 'action'>;

/**
 * Which imports brought the bytes of a moment whose limit is broken: those that weren't there when `before` was read,
 * heaviest first; where all is as it was, those that carry most.
 */
export function causesOf(before: Snapshot, now: Snapshot, plan: Plan, of: MomentOf): LimitCause[] {
  const brought = broughtBy(before, now, plan, of);
  if (brought.length > 0) return brought;
  const moment = momentOf(now, plan, of);
  return moment ? heaviestOf(moment, arrivals(moment), plan, of) : [];
}

/** Which imports bring more to a moment than they did when `before` was read, new ones first, then heaviest first; none where all is as it was. */
export function broughtBy(before: Snapshot, now: Snapshot, plan: Plan, of: MomentOf): LimitCause[] {
  const moment = momentOf(now, plan, of);
  if (!moment) return [];
  const was = momentOf(before, plan, of);
  const old = new Map([...(was?.modules ?? [])].map((m) => [before.modules[m].path, before.modules[m].bytes.minified]));
  const { modules, imports } = moment.snapshot;
  const came = arrivals(moment);
  const groups = new Map<number, LimitCause & { heaviest: number }>();
  for (const m of moment.modules) {
    const bytes = modules[m].bytes.minified - (old.get(modules[m].path) ?? 0);
    if (bytes <= 0) continue;
    // The first import on the way to it that leads to something that wasn't there; one that grew came by its own.
    const way = wayTo(moment.snapshot, came, m);
    const isNew = !old.has(modules[m].path);
    const via = isNew ? way.find((i) => !old.has(modules[imports[i].to].path)) : way.at(-1);
    if (via === undefined) continue;
    const group = groups.get(via) ?? {
      ...edge(moment.snapshot, via),
      bytes: 0,
      modules: 0,
      isNew,
      path: [],
      heaviest: 0,
    };
    group.bytes += bytes;
    group.modules++;
    if (bytes > group.heaviest) {
      group.heaviest = bytes;
      group.path = steps(moment.snapshot, way, m);
    }
    groups.set(via, group);
  }
  const found = [...groups.values()].sort((a, b) => Number(b.isNew) - Number(a.isNew) || b.bytes - a.bytes);
  const most = Math.max(0, ...found.map((b) => b.bytes));
  const counts = found.filter((b) => b.bytes >= most * LEAST_SHARE).slice(0, MOST);
  return counts.map(({ heaviest: _, ...because }) => because);
}

/** What a moment's heaviest imports carry, where nothing new came. */
function heaviestOf(moment: Moment, came: Map<number, number>, plan: Plan, limit: MomentOf): LimitCause[] {
  const route = moment.snapshot.routes.find((r) => r.pattern === limit.route);
  if (!route || limit.action !== undefined) return [];
  const index = graphIndex(moment.snapshot);
  return carriedRows(moment.snapshot, plan, route)
    .imports.slice(0, 3)
    .filter((i) => i.leaves > 0)
    .map(({ from, to, line, leaves }) => {
      const m = index.moduleAt.get(to)!;
      return {
        from,
        to,
        line,
        bytes: leaves,
        modules: 1,
        isNew: false,
        path: steps(moment.snapshot, wayTo(moment.snapshot, came, m), m),
      };
    });
}

/**
 * Detachments that would bring a broken limit's measure down, each tried by itself, best first: of the imports that brought
 * the bytes and those on the way to them, and of what the start's imports carry.
 */
export function recoverFor(now: Snapshot, plan: Plan, limit: Limit, because: readonly LimitCause[]): Recover[] {
  const app = shipped(now, plan).snapshot;
  const moment = momentOf(now, plan, limit);
  const route = app.routes.find((r) => r.pattern === limit.route);
  const value = stateOf(app, new PlanFigures(now, plan), limit).value;
  if (!moment || !route || value === null) return [];
  const pairs = new Set<string>();
  for (const b of because) {
    pairs.add(`${b.from}\n${b.to}`);
    b.path.slice(1).forEach((step, at) => {
      pairs.add(`${b.path[at].path}\n${step.path}`);
    });
  }
  if (limit.action === undefined)
    for (const row of carriedRows(app, plan, route).imports.slice(0, MOST))
      if (row.leaves > 0) pairs.add(`${row.from}\n${row.to}`);
  const tried = app.imports.flatMap((item, i): Recover[] => {
    const { path: from, package: owner } = app.modules[item.from];
    const to = app.modules[item.to].path;
    if (moment.deferred[i] || owner !== null || !pairs.has(`${from}\n${to}`)) return [];
    const key = importKey(app, item);
    const decisions = takenOut(app, plan, key);
    const next = decisions.reduce(withDecision, plan);
    const after = stateOf(app, new PlanFigures(now, next), limit).value;
    if (after === null || after >= value) return [];
    return [
      {
        import: key,
        decisions,
        from,
        to,
        line: item.line,
        value: after,
        saves: value - after,
        enough: after <= limit.most,
        ...(item.sync ? { blocked: `${item.sync.reason} (line ${item.sync.line})` } : {}),
      },
    ];
  });
  // What brought the bytes comes first: taking it back is the plainest way.
  const culprits = new Set(because.filter((b) => b.isNew).map((b) => `${b.from}\n${b.to}`));
  const rank = (r: Recover) => (culprits.has(`${r.from}\n${r.to}`) ? 0 : 1);
  return tried.sort((a, b) => rank(a) - rank(b) || a.value - b.value).slice(0, MOST);
}

function momentOf(app: Snapshot, plan: Plan, limit: MomentOf): Moment | null {
  const { snapshot } = shipped(app, plan);
  const route = snapshot.routes.find((r) => r.pattern === limit.route);
  if (!route) return null;
  const {
    graph,
    plan: { deferred },
    starts,
  } = startsOf(snapshot, plan);
  const start = starts.find((s) => s.route.pattern === limit.route)!;
  if (limit.action === undefined) {
    const roots = start.landing.roots.filter((l) => graph.roots[l.root].group.every((c) => start.chunks.has(c)));
    const from = [...graph.roots[start.landing.entry].target];
    const asked = new Set(roots.map((l) => graph.roots[l.root].target[0]));
    return { snapshot, deferred, modules: start.modules, from, asked };
  }
  const part = route.parts.find((p) => p.id === limit.action);
  const root =
    part && graph.roots.find((r) => snapshot.modules[r.target[0]].path === part.module && r.kind !== 'entry');
  if (!root) return null;
  return { snapshot, deferred, modules: new Set(root.need), from: [...root.target], asked: new Set() };
}

/** By which import each module of a moment is reached first; −1 where the moment begins. */
function arrivals({ snapshot, deferred, modules, from, asked }: Moment): Map<number, number> {
  const index = graphIndex(snapshot);
  const open = from.filter((m) => modules.has(m));
  const came = new Map(open.map((m) => [m, -1]));
  for (const m of open) {
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const i = index.outgoing[e];
      const { to } = snapshot.imports[i];
      if (!modules.has(to) || came.has(to) || (deferred[i] && !asked.has(to))) continue;
      came.set(to, i);
      open.push(to);
    }
  }
  return came;
}

/** Imports from where a moment begins to a module, by index. */
function wayTo(snapshot: Snapshot, came: ReadonlyMap<number, number>, module: number): number[] {
  const way: number[] = [];
  for (let via = came.get(module); via !== undefined && via >= 0; via = came.get(snapshot.imports[via].from))
    way.unshift(via);
  return way;
}

function steps(snapshot: Snapshot, way: readonly number[], module: number): LimitCause['path'] {
  const before = way.map((i) => ({
    path: snapshot.modules[snapshot.imports[i].from].path,
    line: snapshot.imports[i].line,
  }));
  return [...before, { path: snapshot.modules[module].path, line: null }];
}

function edge(snapshot: Snapshot, i: number): Pick<LimitCause, 'from' | 'to' | 'line'> {
  const { from, to, line } = snapshot.imports[i];
  return { from: snapshot.modules[from].path, to: snapshot.modules[to].path, line };
}
