import { graphIndex } from '../snapshot/graph-index.ts';
import type { CorrectedRoute, Route, RouteChange, RouteProposal } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { wildcard } from '../text/wildcard.ts';
import type { RouteName } from './edit.ts';
import type { Amendments, RouteAmendment } from './types.ts';
import { withMeasured } from './with-measured.ts';

/** A snapshot as a person corrected it, and the corrections that no longer fit what was read. */
export interface Amended {
  snapshot: Snapshot;
  stale: { at: string; reason: string }[];
  /** Routes with another page or other layouts, whose parts are still those of the code before: nothing was read or said of these yet. */
  unproposed: RouteName[];
}

const DEFAULT_DOCUMENT = { bytes: 4000, serverMs: 60 };

/**
 * Lays amendments over a snapshot. What they don't speak of stays as read. A correction to a route that is gone, or
 * that names a module that is gone, is listed and left aside, never an error.
 */
export function amend(snapshot: Snapshot, amendments: Amendments): Amended {
  const stale: Amended['stale'] = [];
  const routes = amendedRoutes(snapshot, amendments.routes, stale);
  const scripts = amendedScripts(snapshot, amendments.scripts ?? {}, stale);
  const unproposed = amendments.routes.filter((by) => lacksProposal(snapshot, by)).map(shownName);
  if (saysNothing(amendments)) return { snapshot, stale, unproposed };
  const keeps = amendments.keep.map((name) => wildcard(name, false));
  const unusedRules = snapshot.unusedRules.filter(
    (rule) => !rule.missing.some((name) => keeps.some((fits) => fits(name))),
  );
  const { visitors, measured } = amendments;
  const base = amendments.base ?? snapshot.base;
  const amended = { ...snapshot, routes, scripts, unusedRules, base, ...(visitors ? { visitors } : {}) };
  return {
    snapshot: measured ? withMeasured(amended, measured) : amended,
    stale,
    unproposed,
  };
}

/** A corrected route by the pattern that it is shown under. */
function shownName({ realm, pattern, change }: RouteAmendment): RouteName {
  return { realm, pattern: change.pattern ?? pattern };
}

function saysNothing({ routes, keep, base, scripts, visitors, measured }: Amendments): boolean {
  return (
    routes.length === 0 &&
    keep.length === 0 &&
    base === null &&
    Object.keys(scripts ?? {}).length === 0 &&
    (visitors ?? null) === null &&
    (measured ?? null) === null
  );
}

function amendedRoutes(snapshot: Snapshot, amendments: readonly RouteAmendment[], stale: Amended['stale']): Route[] {
  const routes: Route[] = [];
  const add = (route: Route, by: RouteAmendment | undefined) => {
    const gone = by && missingModule(snapshot, by.change);
    const twin = routes.find((r) => r.pattern === route.pattern && r.realm === route.realm);
    if (gone !== undefined)
      stale.push({ at: nameOf(by!), reason: `names the module ${gone}, which is not in this snapshot` });
    else if (twin) stale.push({ at: route.pattern, reason: 'two routes have this pattern; the first one counts' });
    else routes.push(route);
    return gone === undefined && !twin;
  };
  const byName = new Map(amendments.map((a) => [nameOf(a), a]));
  for (const route of snapshot.routes) {
    const by = byName.get(nameOf(route));
    byName.delete(nameOf(route));
    if (by?.kind === 'removed') continue;
    if (!add(by ? changed(snapshot, route, by) : route, by) && by) add(route, undefined);
  }
  for (const by of byName.values()) {
    const { page } = by.change;
    if (by.kind === 'removed') continue;
    if (by.kind === 'changed' || page === undefined)
      stale.push({ at: nameOf(by), reason: 'there is no such route any more' });
    else if (!snapshot.entries.some((e) => e.realm === by.realm))
      stale.push({ at: nameOf(by), reason: `there is no entry ${by.realm} any more` });
    else add(changed(snapshot, newRoute(by.realm, by.pattern, page), by), by);
  }
  return routes;
}

/** A route as corrected: where that is another page or other layouts, with what code shows of these, as far as it was read with them. */
function changed(snapshot: Snapshot, route: Route, by: RouteAmendment): Route {
  const found = proposalFor(snapshot, route, by);
  const shown = found && {
    content: found.content,
    data: found.data,
    parts: found.parts,
    pageAfter: found.pageAfter,
  };
  return { ...route, ...shown, ...by.change };
}

function proposalFor(snapshot: Snapshot, route: Route, { change }: RouteAmendment): RouteProposal | undefined {
  if (!rebuilds(change)) return undefined;
  const isIt = (p: RouteProposal) => p.realm === route.realm && p.pattern === route.pattern;
  return snapshot.proposals.find((p) => isIt(p) && hasSameCode(p, { ...route, ...change }));
}

function hasSameCode(a: Pick<Route, 'page' | 'layouts'>, b: Pick<Route, 'page' | 'layouts'>): boolean {
  return JSON.stringify([a.page, a.layouts]) === JSON.stringify([b.page, b.layouts]);
}

/** Whether a correction gives a route other code: another page, or other layouts. */
function rebuilds({ page, layouts }: RouteChange): boolean {
  return page !== undefined || layouts !== undefined;
}

/** The routes with other code than was read, as a reading needs them to propose their parts. */
export function rebuiltRoutes({ routes }: Pick<Amendments, 'routes'>): CorrectedRoute[] {
  return routes.flatMap(({ realm, pattern, kind, change }) => {
    const { page, layouts } = change;
    if (kind === 'removed' || !rebuilds(change)) return [];
    return [{ realm, pattern, ...(page === undefined ? {} : { page }), ...(layouts === undefined ? {} : { layouts }) }];
  });
}

/** Whether the parts of a route are still those of the code that was read for it, though a correction gave it other code. */
function lacksProposal(snapshot: Snapshot, by: RouteAmendment): boolean {
  const { realm, pattern, kind, change } = by;
  if (kind === 'removed' || !rebuilds(change) || change.parts !== undefined) return false;
  const read = snapshot.routes.find((r) => r.realm === realm && r.pattern === pattern);
  // A correction to what isn't there any more is left aside.
  if (!read && kind !== 'added') return false;
  const route = read ?? newRoute(realm, pattern, change.page ?? '');
  if (read && hasSameCode(read, { ...read, ...change })) return false;
  return proposalFor(snapshot, route, by) === undefined;
}

/** The first module that a correction names and the snapshot doesn't have. */
function missingModule(
  snapshot: Snapshot,
  { layouts = [], page, parts = [], data = [] }: RouteChange,
): string | undefined {
  const { moduleAt } = graphIndex(snapshot);
  const named = [...layouts, ...(page === undefined ? [] : [page]), ...[...parts, ...data].map((p) => p.module)];
  return named.find((path) => !moduleAt.has(path));
}

function amendedScripts(
  snapshot: Snapshot,
  said: NonNullable<Amendments['scripts']>,
  stale: Amended['stale'],
): Snapshot['scripts'] {
  for (const id of Object.keys(said))
    if (!snapshot.scripts.some((s) => s.id === id))
      stale.push({ at: `script ${id}`, reason: 'there is no such script any more' });
  return snapshot.scripts.map((s) => (Object.hasOwn(said, s.id) ? { ...s, ...said[s.id] } : s));
}

/** Which amendments change the app; the others are only kept beside it. */
const CHANGES_APP: Record<keyof Amendments, boolean> = {
  base: true,
  routes: true,
  keep: true,
  scripts: true,
  visitors: true,
  measured: true,
  confirmed: false,
  visits: false,
  limits: false,
};

/** Whether two amendments give the same app. */
export function sameApp(a: Amendments, b: Amendments): boolean {
  return (Object.keys(CHANGES_APP) as (keyof Amendments)[]).every(
    (field) => !CHANGES_APP[field] || a[field] === b[field],
  );
}

function nameOf({ realm, pattern }: RouteName): string {
  return `${realm} ${pattern}`;
}

function newRoute(realm: string, pattern: string, page: string): Route {
  return {
    pattern,
    realm,
    layouts: [],
    page,
    evidence: null,
    rendering: 'client',
    document: DEFAULT_DOCUMENT,
    content: [],
    data: [],
    parts: [],
    links: [],
  };
}
