import { graphIndex } from '../snapshot/graph-index.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { wildcard } from '../text/wildcard.ts';
import type { Amendments, RouteAmendment } from './types.ts';

/** A snapshot as a person corrected it, and the corrections that no longer fit what was read. */
export interface Amended {
  snapshot: Snapshot;
  stale: { at: string; reason: string }[];
}

const DEFAULT_DOCUMENT = { bytes: 4000, serverMs: 60 };

/**
 * Lays amendments over a snapshot. What they don't speak of stays as read. A correction to a route that is gone, or
 * that names a module that is gone, is listed and left aside, never an error.
 */
export function amend(snapshot: Snapshot, amendments: Amendments): Amended {
  const { moduleAt } = graphIndex(snapshot);
  const stale: Amended['stale'] = [];
  const missing = (route: Partial<Route>) =>
    [
      ...(route.layouts ?? []),
      ...(route.page === undefined ? [] : [route.page]),
      ...(route.parts ?? []).map((p) => p.module),
    ]
      .concat((route.data ?? []).map((d) => d.module))
      .find((path) => !moduleAt.has(path));
  const routes: Route[] = [];
  const add = (route: Route, by: RouteAmendment | undefined) => {
    const gone = by && missing(by.change);
    const twin = routes.find((r) => r.pattern === route.pattern && r.realm === route.realm);
    if (gone !== undefined)
      stale.push({ at: nameOf(by!), reason: `names the module ${gone}, which is not in this snapshot` });
    else if (twin) stale.push({ at: route.pattern, reason: 'two routes have this pattern; the first one counts' });
    else routes.push(route);
    return gone === undefined && !twin;
  };
  const byName = new Map(amendments.routes.map((a) => [nameOf(a), a]));
  for (const route of snapshot.routes) {
    const by = byName.get(nameOf(route));
    byName.delete(nameOf(route));
    if (by?.kind === 'removed') continue;
    if (!add(by ? { ...route, ...by.change } : route, by) && by) add(route, undefined);
  }
  for (const by of byName.values()) {
    const { page } = by.change;
    if (by.kind === 'removed') continue;
    if (by.kind === 'changed' || page === undefined)
      stale.push({ at: nameOf(by), reason: 'there is no such route any more' });
    else if (!snapshot.entries.some((e) => e.realm === by.realm))
      stale.push({ at: nameOf(by), reason: `there is no entry ${by.realm} any more` });
    else add({ ...newRoute(by.realm, by.pattern, page), ...by.change }, by);
  }
  const keeps = amendments.keep.map((name) => wildcard(name, false));
  const unusedRules = snapshot.unusedRules.filter(
    (rule) => !rule.missing.some((name) => keeps.some((fits) => fits(name))),
  );
  const { visitors = null, scripts: said = {} } = amendments;
  for (const id of Object.keys(said))
    if (!snapshot.scripts.some((s) => s.id === id))
      stale.push({ at: `script ${id}`, reason: 'there is no such script any more' });
  const scripts = snapshot.scripts.map((s) => (Object.hasOwn(said, s.id) ? { ...s, ...said[s.id] } : s));
  const same =
    amendments.routes.length === 0 &&
    amendments.keep.length === 0 &&
    amendments.base === null &&
    Object.keys(said).length === 0 &&
    visitors === null;
  return {
    snapshot: same
      ? snapshot
      : {
          ...snapshot,
          routes,
          scripts,
          unusedRules,
          base: amendments.base ?? snapshot.base,
          ...(visitors === null ? {} : { visitors }),
        },
    stale,
  };
}

/** Which amendments change the app; the others are only kept beside it. */
const CHANGES_APP: Record<keyof Amendments, boolean> = {
  base: true,
  routes: true,
  keep: true,
  scripts: true,
  visitors: true,
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

function nameOf({ realm, pattern }: { realm: string; pattern: string }): string {
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
