import type { ChunkGraph } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { elsewhere, type Landing } from './landing.ts';
import { placeOf, screensOf } from './places.ts';
import { comesWithCode } from './trigger-rules.ts';
import type { Screens } from './types.ts';

/** What of a landing its first screen needs: the one place that says which files are the start, and what in them is idle. */
export interface FirstScreen {
  /** Roots that the landing asks for because its first screen needs them; the entry and the chain always. */
  roots: ReadonlySet<number>;
  /** Modules that run or draw for the first screen, whatever the screen's size. */
  always: Uint8Array;
  /** Modules that only do on some screens, with those. */
  onScreens: ReadonlyMap<number, Screens[]>;
}

/**
 * Follows from the entry, the layouts and the page what they import, and the split points that the landing draws at once
 * or that hold a part of the first screen. Not followed: pages and layouts of other routes, parts that stand elsewhere
 * than on the first screen, and imports that are only used when somebody acts.
 */
export function firstScreenOf(
  snapshot: Snapshot,
  plan: EffectivePlan,
  graph: ChunkGraph,
  landing: Landing,
): FirstScreen {
  const index = graphIndex(snapshot);
  const { route } = landing;
  const roots = new Set(landing.roots.filter((l) => l.inChain).map((l) => l.root));
  const always = new Uint8Array(snapshot.modules.length);
  const onScreens = new Map<number, Screens[]>();
  if (landing.entry < 0) return { roots, always, onScreens };
  const chain = [...route.layouts, route.page].flatMap((path) => index.moduleAt.get(path) ?? []);
  const begin = [...graph.roots[landing.entry].target, ...chain];
  const closed = elsewhere(snapshot, route, begin);
  const drawn = partsByModule(snapshot, route);
  const landed = landedTargets(graph, landing, drawn);
  for (const m of begin) drawn.delete(m);
  const sized: Sized[] = [];
  const follow = followerOf({ snapshot, plan, closed, drawn, landed, roots, sized });
  follow(begin, (m) => {
    if (always[m]) return false;
    always[m] = 1;
    return true;
  });
  const known = new Set<string>();
  for (let next = 0; next < sized.length; next++) {
    const { module, screens } = sized[next];
    const key = `${module} ${JSON.stringify(screens)}`;
    if (known.has(key)) continue;
    known.add(key);
    const root = landed.get(module);
    if (root !== undefined) roots.add(root);
    follow([module], (m) => {
      const on = onScreens.get(m) ?? [];
      if (always[m] || on.includes(screens)) return false;
      onScreens.set(m, [...on, screens]);
      return true;
    });
  }
  return { roots, always, onScreens };
}

/** A module that only some screens need. */
interface Sized {
  module: number;
  screens: Screens;
}

/** Marks what modules bring along, as long as `isNew` says that it wasn't marked yet. */
function followerOf(within: {
  snapshot: Snapshot;
  plan: EffectivePlan;
  closed: ReadonlySet<number>;
  drawn: ReadonlyMap<number, readonly Part[]>;
  landed: ReadonlyMap<number, number>;
  /** Roots that are met are added to these. */
  roots: Set<number>;
  /** What stands on some screens only is noted here, and not followed. */
  sized: Sized[];
}): (from: readonly number[], isNew: (m: number) => boolean) => void {
  const { snapshot, plan, closed, drawn, landed, roots, sized } = within;
  const index = graphIndex(snapshot);
  return (from, isNew) => {
    const open = from.filter(isNew);
    for (let next = 0; next < open.length; next++) {
      const m = open[next];
      for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
        const i = index.outgoing[e];
        const { to, onActs } = snapshot.imports[i];
        const root = landed.get(to);
        if (closed.has(to) || (plan.deferred[i] ? root === undefined : onActs === true)) continue;
        const parts = drawn.get(to);
        if (parts?.every((p) => placeOf(p) === 'later' || placeOf(p) === 'below')) continue;
        if (parts?.every((p) => screensOf(p) !== null)) {
          sized.push(...parts.map((p) => ({ module: to, screens: screensOf(p)! })));
          continue;
        }
        if (plan.deferred[i]) roots.add(root!);
        if (isNew(to)) open.push(to);
      }
    }
  };
}

/** Split points that the landing asks for because its first screen draws them, each with its root. */
function landedTargets(
  graph: ChunkGraph,
  landing: Landing,
  drawn: ReadonlyMap<number, readonly Part[]>,
): Map<number, number> {
  const landed = new Map<number, number>();
  for (const l of landing.roots) {
    const [target] = graph.roots[l.root].target;
    if (comesWithCode(l.trigger) || drawn.get(target)?.some((p) => placeOf(p) === 'first screen'))
      landed.set(target, l.root);
  }
  return landed;
}

function partsByModule(snapshot: Snapshot, route: Route): Map<number, Part[]> {
  const { moduleAt } = graphIndex(snapshot);
  const found = new Map<number, Part[]>();
  for (const part of route.parts) {
    const m = moduleAt.get(part.module);
    if (m !== undefined) found.set(m, [...(found.get(m) ?? []), part]);
  }
  return found;
}
