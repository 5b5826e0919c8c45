import type { ScriptChange } from '../snapshot/document-types.ts';
import type { Route, RouteChange } from '../snapshot/route-types.ts';
import type { Amendments, RouteAmendment } from './types.ts';

/** Name of a route as amendments know it: as read, whatever its pattern was changed to since. */
export interface RouteName {
  realm: string;
  pattern: string;
}

/** The name under which amendments know a route that is shown under its present pattern. */
export function readName(amendments: Amendments, shown: RouteName): RouteName {
  const by = amendments.routes.find(
    (a) => a.realm === shown.realm && a.kind !== 'removed' && (a.change.pattern ?? a.pattern) === shown.pattern,
  );
  return { realm: shown.realm, pattern: by?.pattern ?? shown.pattern };
}

/** Amendments with more corrections to one route. */
export function withChange(amendments: Amendments, shown: RouteName, change: RouteChange): Amendments {
  const name = readName(amendments, shown);
  const at = amendments.routes.findIndex((a) => same(a, name));
  const old = amendments.routes[at];
  const next: RouteAmendment = old
    ? { ...old, change: { ...old.change, ...change } }
    : { ...name, kind: 'changed', change };
  const routes = old ? amendments.routes.with(at, next) : [...amendments.routes, next];
  return { ...amendments, routes };
}

/** Amendments without the route: one that was added by hand is forgotten, one that was read is left out. */
export function withoutRoute(amendments: Amendments, shown: RouteName): Amendments {
  const name = readName(amendments, shown);
  const added = amendments.routes.some((a) => same(a, name) && a.kind === 'added');
  const others = amendments.routes.filter((a) => !same(a, name));
  return { ...amendments, routes: added ? others : [...others, { ...name, kind: 'removed', change: {} }] };
}

/** Amendments with a route that was not found. */
export function withRoute(amendments: Amendments, name: RouteName, page: string): Amendments {
  const others = amendments.routes.filter((a) => !same(a, name));
  return { ...amendments, routes: [...others, { ...name, kind: 'added', change: { page } }] };
}

/** Amendments with what is said of a classic script. */
export function withScript(amendments: Amendments, id: string, change: ScriptChange): Amendments {
  return { ...amendments, scripts: { ...amendments.scripts, [id]: { ...amendments.scripts?.[id], ...change } } };
}

/** Amendments with the route again as it was read. */
export function asRead(amendments: Amendments, shown: RouteName): Amendments {
  const name = readName(amendments, shown);
  return { ...amendments, routes: amendments.routes.filter((a) => !same(a, name)) };
}

/**
 * The area of a route: the routes of its realm that share its outermost own folder of the address (`/crew/…`) or, at
 * the top, stand alone.
 */
export function areaOf(routes: readonly Route[], { realm, pattern }: RouteName): Route[] {
  const top = pattern.split('/')[1];
  return routes.filter((r) => r.realm === realm && r.pattern.split('/')[1] === top);
}

function same(a: RouteName, b: RouteName): boolean {
  return a.realm === b.realm && a.pattern === b.pattern;
}
