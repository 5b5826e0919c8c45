import type { Chunk, ChunkGraph } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import type { GraphIndex } from '../snapshot/graph-index.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { DeferredContext, Import } from '../snapshot/module-types.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
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
  const entry = graph.roots.findIndex((r) => r.realm === route.realm && r.kind === 'entry');
  if (entry < 0) return { landing: { route, entry, roots: [], later: [] }, open: (landed) => [landed] };
  return new Walk(snapshot, plan, graph, route, entry);
}

class Walk implements LandingWalk {
  readonly landing: Landing;
  private readonly index: GraphIndex;
  /** The layouts and the page of the route. */
  private readonly chain: ReadonlySet<number>;
  /** Pages and layouts of other routes. */
  private readonly closed: ReadonlySet<number>;
  private readonly rootOf = new Map<number, number>();
  private readonly taken = new Set<number>();
  private readonly seenLater = new Map<number, LandedRoot>();
  /** Modules that take part, and those of them whose imports haven't been followed yet. */
  private readonly active: Uint8Array;
  private readonly pending: number[] = [];
  /** Where roots go that are asked for: the landing's, or those of what is opened beside it. */
  private asked: LandedRoot[];

  constructor(
    private readonly snapshot: Snapshot,
    private readonly plan: EffectivePlan,
    private readonly graph: ChunkGraph,
    private readonly route: Route,
    private readonly entry: number,
  ) {
    const { roots } = graph;
    this.index = graphIndex(snapshot);
    this.chain = new Set([...route.layouts, route.page].flatMap((path) => this.index.moduleAt.get(path) ?? []));
    this.closed = elsewhere(snapshot, route, [...this.chain, ...roots[entry].target]);
    roots.forEach((r, at) => {
      if (r.realm === route.realm && at !== entry) this.rootOf.set(r.target[0], at);
    });
    this.active = new Uint8Array(snapshot.modules.length);
    this.landing = { route, entry, roots: [], later: [] };
    this.asked = this.landing.roots;
    this.land();
  }

  /** Follows the entry, then brings what of the chain nothing has brought. */
  private land(): void {
    const { landing, entry, taken, rootOf } = this;
    landing.roots.push({ root: entry, askedBy: -1, trigger: AT_ONCE, inChain: true });
    for (const m of this.graph.roots[entry].target) this.activate(m);
    this.follow();
    for (const m of this.chain) {
      const own = rootOf.get(m);
      if (own === undefined ? this.active[m] : taken.has(own)) continue;
      this.bring(m);
      this.follow();
    }
    landing.later = [...this.seenLater.values()].filter((l) => !taken.has(l.root));
  }

  readonly open = (landed: LandedRoot): LandedRoot[] => {
    const { taken } = this;
    if (taken.has(landed.root)) return [];
    this.asked = [landed];
    const already = this.active.slice();
    taken.add(landed.root);
    this.activate(this.graph.roots[landed.root].target[0]);
    this.follow();
    for (const { root } of this.asked) taken.delete(root);
    this.active.set(already);
    return this.asked;
  };

  private activate(m: number): void {
    if (this.active[m] || this.closed.has(m)) return;
    this.active[m] = 1;
    this.pending.push(m);
  }

  private follow(): void {
    const { index, plan, pending } = this;
    const { imports } = this.snapshot;
    for (let next = 0; next < pending.length; next++) {
      const m = pending[next];
      for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
        const i = index.outgoing[e];
        if (plan.deferred[i]) this.ask(imports[i].to, i);
        else this.activate(imports[i].to);
      }
    }
    pending.length = 0;
  }

  /** A deferred import asks for a root: now, or at a later moment. */
  private ask(target: number, via: number): void {
    const { snapshot, plan, route } = this;
    const root = this.rootOf.get(target);
    if (root === undefined || this.closed.has(target) || this.taken.has(root)) return;
    const inChain = this.chain.has(target);
    const trigger = inChain ? AT_ONCE : triggerOf(snapshot, plan, route, target, via);
    const item = snapshot.imports[via];
    const landed: LandedRoot = {
      root,
      askedBy: item.from,
      trigger,
      inChain,
      ...(item.awaited ? { awaited: item.awaited } : {}),
      ...(!item.awaited && contextOf(item) === 'wrapper' ? { drawn: true } : {}),
    };
    if (!firesOnLanding(trigger, route, snapshot.modules[target].path)) {
      if (this.asked === this.landing.roots && !this.seenLater.has(root)) this.seenLater.set(root, landed);
      return;
    }
    this.taken.add(root);
    this.asked.push(landed);
    this.activate(target);
  }

  /**
   * A page or layout that only another route's code leads to: the roots on a shortest way from the entry have to come
   * as well, though nothing of them is drawn.
   */
  private bring(m: number): void {
    const { snapshot, graph, route, entry, taken } = this;
    const holder = this.rootOf.get(m) ?? graph.roots.findIndex((r) => r.realm === route.realm && r.need.includes(m));
    for (const landed of wayTo(snapshot, graph, entry, holder, taken)) {
      taken.add(landed.root);
      this.asked.push(landed);
    }
    this.activate(m);
  }
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

const begunOf = new WeakMap<Snapshot, ReadonlyMap<number, Trigger>>();

/** Modules whose deferred import the code begins by itself, each with its moment. */
function begunIn(snapshot: Snapshot): ReadonlyMap<number, Trigger> {
  let begun = begunOf.get(snapshot);
  if (!begun) {
    begun = new Map(snapshot.imports.flatMap((i) => (i.begun ? [[i.to, i.begun]] : [])));
    begunOf.set(snapshot, begun);
  }
  return begun;
}

/**
 * When a split point's code is fetched on a route: as the plan says; else when the code begins it by itself; else as the
 * part's place implies; else as the code shows (in an event handler: on the action; wrapped for rendering: at once).
 */
export function triggerOf(snapshot: Snapshot, plan: EffectivePlan, route: Route, target: number, via: number): Trigger {
  const { path } = snapshot.modules[target];
  const planned = plan.triggers.get(path);
  if (planned) return planned;
  const begun = begunIn(snapshot).get(target);
  if (begun) return begun;
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
