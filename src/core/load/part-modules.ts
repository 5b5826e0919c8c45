import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { ScreenPart } from './types.ts';

/** What stands around the page of a route, outermost first: what shows as soon as the entry runs, and the layouts of the route. */
export function aroundPage({ entries }: Snapshot, { realm, layouts, page, rendering }: Route): string[] {
  const frame = entries.find((e) => e.realm === realm)?.frame;
  const isAround = frame !== undefined && frame !== page && rendering === 'client' && !layouts.includes(frame);
  return isAround ? [frame, ...layouts] : layouts;
}

/** Modules that draw a part of a route’s screen, by path, its own last: what shows that nobody has named goes by the path of its module. */
export function modulesOfPart(snapshot: Snapshot, route: Route, id: ScreenPart['id']): string[] {
  const around = aroundPage(snapshot, route);
  if (id === 'shell') return around.slice(0, 1);
  if (id === 'page') return [...around.slice(1), route.page];
  return [route.parts.find((p) => p.id === id)?.module ?? id];
}

/** The modules that start the app around a route. */
export const entryModules = ({ entries }: Snapshot, { realm }: Route): string[] =>
  entries.find((e) => e.realm === realm)?.modules ?? [];
