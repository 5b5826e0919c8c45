import type { Chunk, ChunkGraph, Root } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import type { Trigger } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Part, Route, Snapshot } from '../snapshot/types.ts';

/** A root that a landing asks for, with the chunk whose evaluation asks and the trigger that decides when. */
export interface LandedRoot {
  root: number;
  /** The module with the deferred import; −1: the page itself asks (entry, or a route convention). */
  askedBy: number;
  trigger: Trigger;
  /** Part of the route's own chain of layouts and page. */
  inChain: boolean;
}

export interface Landing {
  route: Route;
  entry: number;
  /** In the order in which they are asked for; the entry first. */
  roots: LandedRoot[];
  /** Roots of the realm that a later moment of this route may ask for, with their triggers. */
  later: LandedRoot[];
}

/** Follows a landing on a route: which roots are asked for, by whom and when, under the plan's triggers. */
export function followLanding(snapshot: Snapshot, plan: EffectivePlan, graph: ChunkGraph, route: Route): Landing {
  const index = graphIndex(snapshot);
  const chain = new Set([...route.layouts, route.page].map((path) => index.moduleAt.get(path)));
  const entry = graph.roots.findIndex((r) => r.realm === route.realm && r.kind === 'entry');
  const landing: Landing = { route, entry, roots: [], later: [] };
  if (entry < 0) return landing;
  landing.roots.push({ root: entry, askedBy: -1, trigger: { on: 'at once' }, inChain: true });
  const loaded = new Set([entry]);
  const seenLater = new Set<number>();
  const asks = asksOf(graph);
  for (let next = 0; next < landing.roots.length; next++) {
    for (const { root, via } of asks.get(landing.roots[next].root) ?? []) {
      if (loaded.has(root)) continue;
      const target = graph.roots[root].target[0];
      const inChain = chain.has(target);
      if (!inChain && isRouteModule(graph.roots[root])) continue;
      const trigger = inChain ? AT_ONCE : triggerOf(snapshot, plan, route, target, via);
      const landed = { root, askedBy: via < 0 ? -1 : snapshot.imports[via].from, trigger, inChain };
      if (happensOnLanding(trigger)) {
        loaded.add(root);
        landing.roots.push(landed);
      } else if (!seenLater.has(root)) {
        seenLater.add(root);
        landing.later.push(landed);
      }
    }
  }
  landing.later = landing.later.filter((l) => !loaded.has(l.root));
  return landing;
}

const AT_ONCE: Trigger = { on: 'at once' };

function isRouteModule(root: Root): boolean {
  return root.kind === 'page' || root.kind === 'layout';
}

/** root → the roots that its modules ask for, with the import, in source order. */
function asksOf(graph: ChunkGraph): Map<number, { root: number; via: number }[]> {
  const asks = new Map<number, { root: number; via: number }[]>();
  graph.roots.forEach((r, root) => {
    for (const by of r.askedBy) {
      const list = asks.get(by.root);
      if (list) list.push({ root, via: by.import });
      else asks.set(by.root, [{ root, via: by.import }]);
    }
  });
  return asks;
}

/** Whether a trigger fires during a landing on which nobody does anything. */
export function happensOnLanding(trigger: Trigger): boolean {
  return ['at once', 'after first paint', 'idle', 'after', 'media'].includes(trigger.on);
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
  const known = snapshot.routes.flatMap((r) => r.parts).find((p) => p.module === path);
  if (known) return placeTrigger(known);
  const context = via < 0 ? 'wrapper' : (snapshot.imports[via].context ?? 'wrapper');
  return context === 'handler' || context === 'function' ? { on: 'action' } : AT_ONCE;
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
