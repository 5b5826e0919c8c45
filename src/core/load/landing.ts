import type { Chunk, ChunkGraph } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { DeferredContext, Import, Part, Route, Snapshot } from '../snapshot/types.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { firesOnLanding } from './trigger-rules.ts';

/** A root that a landing asks for, with the chunk whose evaluation asks and the trigger that decides when. */
export interface LandedRoot {
  root: number;
  /** The module with the deferred import; −1: the page itself asks (entry, or a route convention). */
  askedBy: number;
  trigger: Trigger;
  /** Part of the route's own chain of layouts and page. */
  inChain: boolean;
  /** The module that asks waits for it while it starts. */
  awaited?: true;
  /** It is asked for while the screen is drawn, so that what it brings shows once it is there. */
  drawn?: true;
}

export interface Landing {
  route: Route;
  entry: number;
  /** In the order in which they are asked for; the entry first. */
  roots: LandedRoot[];
  /** Roots of the realm that a later moment of this route may ask for, with their triggers. */
  later: LandedRoot[];
}

/** A landing, and what opening a further root would bring beside it. */
export interface LandingWalk {
  landing: Landing;
  /** Roots that the code of an opened one asks for in its turn, itself first; the landing stays as it is. */
  open(landed: LandedRoot): LandedRoot[];
}

/** Follows a landing on a route; see walkLanding. */
export function followLanding(snapshot: Snapshot, plan: EffectivePlan, graph: ChunkGraph, route: Route): Landing {
  return walkLanding(snapshot, plan, graph, route).landing;
}

/**
 * Follows a landing on a route: which roots are asked for, by whom and when, under the plan's triggers. Only modules
 * that take part in this landing ask: what the entry and the chain import, but not another route's page or layout
 * that happens to travel in the same file.
 */
export function walkLanding(snapshot: Snapshot, plan: EffectivePlan, graph: ChunkGraph, route: Route): LandingWalk {
  const index = graphIndex(snapshot);
  const chain = new Set([...route.layouts, route.page].flatMap((path) => index.moduleAt.get(path) ?? []));
  const entry = graph.roots.findIndex((r) => r.realm === route.realm && r.kind === 'entry');
  const landing: Landing = { route, entry, roots: [], later: [] };
  if (entry < 0) return { landing, open: (landed) => [landed] };
  const closed = elsewhere(snapshot, route, [...chain, ...graph.roots[entry].target]);
  const rootOf = new Map<number, number>();
  graph.roots.forEach((r, at) => {
    if (r.realm === route.realm && at !== entry) rootOf.set(r.target[0], at);
  });

  const taken = new Set<number>();
  const seenLater = new Map<number, LandedRoot>();
  const active = new Uint8Array(snapshot.modules.length);
  const open: number[] = [];
  let asked = landing.roots;
  const activate = (m: number) => {
    if (active[m] || closed.has(m)) return;
    active[m] = 1;
    open.push(m);
  };
  const ask = (target: number, via: number) => {
    const root = rootOf.get(target);
    if (root === undefined || closed.has(target) || taken.has(root)) return;
    const inChain = chain.has(target);
    const trigger = inChain ? AT_ONCE : triggerOf(snapshot, plan, route, target, via);
    const { from, awaited }: Pick<Import, 'from' | 'awaited'> = via < 0 ? { from: -1 } : snapshot.imports[via];
    const drawn = !awaited && (via < 0 || contextOf(snapshot.imports[via]) === 'wrapper');
    const landed: LandedRoot = {
      root,
      askedBy: from,
      trigger,
      inChain,
      ...(awaited ? { awaited } : {}),
      ...(drawn ? { drawn } : {}),
    };
    if (!firesOnLanding(trigger, route, snapshot.modules[target].path)) {
      if (asked === landing.roots && !seenLater.has(root)) seenLater.set(root, landed);
      return;
    }
    taken.add(root);
    asked.push(landed);
    activate(target);
  };
  /**
   * A page or layout that only another route's code leads to: the roots on a shortest way from the entry have to come
   * as well, though nothing of them is drawn.
   */
  const bring = (m: number) => {
    const holder = rootOf.get(m) ?? graph.roots.findIndex((r) => r.realm === route.realm && r.need.includes(m));
    for (const landed of wayTo(snapshot, graph, entry, holder, taken)) {
      taken.add(landed.root);
      asked.push(landed);
    }
    activate(m);
  };
  const follow = () => {
    for (let next = 0; next < open.length; next++) {
      const m = open[next];
      for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
        const i = index.outgoing[e];
        if (plan.deferred[i]) ask(snapshot.imports[i].to, i);
        else activate(snapshot.imports[i].to);
      }
    }
    open.length = 0;
  };

  landing.roots.push({ root: entry, askedBy: -1, trigger: AT_ONCE, inChain: true });
  for (const m of graph.roots[entry].target) activate(m);
  follow();
  for (const m of chain) {
    const own = rootOf.get(m);
    if (own === undefined ? active[m] : taken.has(own)) continue;
    bring(m);
    follow();
  }
  landing.later = [...seenLater.values()].filter((l) => !taken.has(l.root));
  return {
    landing,
    open(landed) {
      if (taken.has(landed.root)) return [];
      asked = [landed];
      const already = active.slice();
      taken.add(landed.root);
      activate(graph.roots[landed.root].target[0]);
      follow();
      for (const { root } of asked) taken.delete(root);
      active.set(already);
      return asked;
    },
  };
}

/** Roots on a shortest way from the entry (or from what is taken) to a root, that root last; empty when it is there. */
function wayTo(snapshot: Snapshot, graph: ChunkGraph, entry: number, root: number, taken: Set<number>): LandedRoot[] {
  const known = new Map<number, LandedRoot[]>([[root, []]]);
  for (const [at, after] of known) {
    if (at === entry || at < 0 || taken.has(at)) return after;
    for (const by of graph.roots[at].askedBy) {
      if (known.has(by.root)) continue;
      const askedBy = by.import < 0 ? -1 : snapshot.imports[by.import].from;
      known.set(by.root, [{ root: at, askedBy, trigger: AT_ONCE, inChain: true }, ...after]);
    }
  }
  return [];
}

const AT_ONCE: Trigger = { on: 'at once' };

const routeModulesOf = new WeakMap<Snapshot, Map<string, ReadonlySet<number>>>();

/** Pages and layouts of other routes: code that a landing doesn't run, though it may travel in the same file. */
export function elsewhere(snapshot: Snapshot, route: Route, own: readonly number[]): Set<number> {
  const modules = routeModules(snapshot, route.realm);
  for (const m of own) modules.delete(m);
  return modules;
}

/** Pages and layouts of all routes of a realm, in a set of one's own. */
function routeModules(snapshot: Snapshot, realm: string): Set<number> {
  const known = routeModulesOf.get(snapshot) ?? new Map<string, ReadonlySet<number>>();
  routeModulesOf.set(snapshot, known);
  const modules = known.get(realm) ?? findRouteModules(snapshot, realm);
  known.set(realm, modules);
  return new Set(modules);
}

function findRouteModules(snapshot: Snapshot, realm: string): ReadonlySet<number> {
  const index = graphIndex(snapshot);
  const modules = new Set<number>();
  for (const route of snapshot.routes) {
    if (route.realm !== realm) continue;
    for (const path of [...route.layouts, route.page]) {
      const m = index.moduleAt.get(path);
      if (m !== undefined) modules.add(m);
    }
  }
  return modules;
}

/**
 * When a split point's code is fetched on a route: as the plan says; else as the part's place implies; else as the
 * code shows (in an event handler: on the action; wrapped for rendering: at once).
 */
export function triggerOf(snapshot: Snapshot, plan: EffectivePlan, route: Route, target: number, via: number): Trigger {
  const { path } = snapshot.modules[target];
  const planned = plan.triggers.get(path);
  if (planned) return planned;
  const part = route.parts.find((p) => p.module === path);
  if (part) return placeTrigger(part);
  const context = via < 0 ? 'wrapper' : contextOf(snapshot.imports[via]);
  return context === 'handler' || context === 'function' ? { on: 'action' } : AT_ONCE;
}

/** When the code of a moment is fetched on a route: of a part, or (as the page of another route) of a move there. */
export function momentTrigger(
  snapshot: Snapshot,
  plan: EffectivePlan,
  route: Route,
  module: string,
  isPart: boolean,
): Trigger {
  if (!isPart) return plan.triggers.get(module) ?? { on: 'action' };
  return triggerOf(snapshot, plan, route, graphIndex(snapshot).moduleAt.get(module) ?? -1, -1);
}

/** Where a deferred import is made; one that a plan defers is wrapped for drawing. */
function contextOf({ context }: Import): DeferredContext {
  return context ?? 'wrapper';
}

function placeTrigger(part: Part): Trigger {
  switch (part.place) {
    case 'first screen':
      return AT_ONCE;
    case 'below':
      return { on: 'visible' };
    case 'action':
      return { on: 'action' };
    case 'conditional':
      switch (part.condition?.kind) {
        case 'media':
          return { on: 'media', maxWidth: part.condition.maxWidth, minWidth: part.condition.minWidth };
        case 'answer':
          return { on: 'answer', of: part.condition.of };
        default:
          return { on: 'event', name: part.name };
      }
  }
}

/** The chunk of a realm that holds a module, among those of the given roots' load groups; −1 when none does. */
export function chunkOf(graph: ChunkGraph, landed: LandedRoot[], module: number): number {
  for (const { root } of landed) {
    for (const c of graph.roots[root].group) if (holds(graph.chunks[c], module)) return c;
  }
  return -1;
}

const members = new WeakMap<Chunk, Set<number>>();

function holds(chunk: Chunk, module: number): boolean {
  let set = members.get(chunk);
  if (!set) {
    set = new Set(chunk.modules);
    members.set(chunk, set);
  }
  return set.has(module);
}
