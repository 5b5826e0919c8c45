import { has } from '../chunks/bits.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { WorkerStart } from '../snapshot/module-types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { fileOf, type Uncompiled } from './compilation.ts';
import { asDrawn } from './drawn-in.ts';
import { firesOnLanding } from './trigger-rules.ts';
import type { Action, Effect, Resource } from './types.ts';

/**
 * Workers that the code of a landing starts without anybody acting: their scripts are asked for by the file that holds that code, as it runs or as what it
 * belongs to is drawn. They run beside the page, so that its thread isn't held by them. `begin` has an effect happen at a trigger.
 */
export function addWorkers(
  c: Uncompiled,
  drawers: ReadonlyMap<number, number>,
  begin: (asker: Resource, trigger: Trigger, path: string, effect: Effect) => void,
): void {
  const { snapshot, graph, landing, files } = c;
  const started = snapshot.entries.filter((e) => e.kind === 'worker' && e.startedBy !== undefined);
  // Most apps have none, and landings are compiled by the hundreds.
  if (started.length === 0) return;
  const { moduleAt } = graphIndex(snapshot);
  const ran = modulesThatRun(c);
  const drawn = modulesDrawn(c, drawers);
  for (const { realm, startedBy = [] } of started) {
    const root = graph.roots.find((r) => r.kind === 'worker' && r.realm === realm);
    if (!root) continue;
    for (const start of startedBy) {
      const module = moduleAt.get(start.from) ?? -1;
      const file = module < 0 ? -1 : fileOf(snapshot, graph, landing, files, module);
      const happens = start.context === 'wrapper' && !start.begun ? drawn : ran;
      if (file < 0 || !happens.has(module) || !startsOn(start, landing.route)) continue;
      const resource = files.worker(root);
      if (resource === null) continue;
      const asker = files.resources[file];
      const effect = { kind: 'fetch', resource } as const;
      if (start.begun) begin(asker, start.begun, start.from, effect);
      else asker.follow.push(actionOf(start, drawers.get(module), effect));
    }
  }
}

/** Modules that the landing runs, be it for their effects alone. */
function modulesThatRun({ graph, landing }: Uncompiled): Pick<Set<number>, 'has'> {
  return { has: (m) => landing.roots.some(({ root }) => has(graph.roots[root].reach, m)) };
}

/** Modules that are drawn with the route or with parts that come at once. */
function modulesDrawn(
  { snapshot, landing, drawing }: Uncompiled,
  drawers: ReadonlyMap<number, number>,
): ReadonlySet<number> {
  const { route } = landing;
  const entry = snapshot.entries.find((e) => e.realm === route.realm);
  const shown = route.parts.filter((p) => p.place === 'first screen' || p.place === 'below').map((p) => p.module);
  const drawn = drawing.reach([...(entry?.modules ?? []), ...route.layouts, route.page, ...shown]);
  return new Set([...drawers.keys(), ...drawn]);
}

/** Whether a worker is started while somebody lands on a route. */
function startsOn({ context, begun, from }: WorkerStart, route: Route): boolean {
  if (begun) return firesOnLanding(begun, route, from);
  switch (context) {
    case 'module':
    case 'wrapper':
      return true;
    case 'handler':
    case 'function':
      return false;
  }
}

function actionOf({ context }: WorkerStart, drawer: number | undefined, effect: Effect): Action {
  return context === 'module' || drawer === undefined ? { when: 'eval', do: effect } : asDrawn({ do: effect }, drawer);
}
