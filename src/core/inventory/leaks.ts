import { carriedWeights, type Weight } from '../chunks/carried.ts';
import { Reacher } from '../chunks/reach.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import type { Start } from './starts.ts';

/** Code that some routes need, in the start of others, with the import that does it. */
export interface Leak {
  /** The import to detach. */
  import: string;
  from: string;
  line: number;
  to: string;
  name: string;
  /** Routes that need what it brings. */
  neededBy: string[];
  /** Routes that have it at start all the same. */
  paidBy: string[];
  /** What leaves the start of those routes if the import is detached. */
  weight: Weight;
  /** Sibling pages that are deferred already, where this one was forgotten. */
  siblings: number;
}

/** Smaller leaks are not worth a line, in minified bytes; forgotten pages are, since each route pays for them all. */
const LEAST = 2000;
const LEAST_PAGE = 500;
/** The heaviest modules decide whose code an import brings. */
const MOSTLY = 0.6;

/**
 * Finds two kinds of leaks: a page or layout that is imported at the start of routes that don't use it, and an import
 * in what all routes share that mostly brings code which the page of some routes needs by itself. Heaviest first.
 */
export function findLeaks(snapshot: Snapshot, effective: EffectivePlan, starts: Start[]): Leak[] {
  const index = graphIndex(snapshot);
  const pages = new Map<number, Route[]>();
  for (const { route } of starts) {
    for (const path of [...route.layouts, route.page]) {
      const m = index.moduleAt.get(path);
      if (m !== undefined) pages.set(m, [...(pages.get(m) ?? []), route]);
    }
  }
  const entry = snapshot.entries.filter((e) => e.kind === 'document').flatMap((e) => e.modules);
  const entries = entry.flatMap((path) => index.moduleAt.get(path) ?? []);
  const reacher = new Reacher(index, effective.deferred);
  const pageReach = new Map([...pages.keys()].map((m) => [m, new Set(reacher.from([m]))]));
  const shared = [...pages].filter(([, routes]) => routes.length === starts.length).map(([m]) => m);
  const carried = carriedWeights(snapshot, index, effective.deferred, [...entries, ...shared]);
  const leaks: Leak[] = [];
  const seen = new Set<string>();
  for (const from of carried.modules) {
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      const { to, line } = snapshot.imports[i];
      if (effective.deferred[i] || seen.has(`${from} ${to}`)) continue;
      seen.add(`${from} ${to}`);
      const weight = carried.ofImport(from, to);
      const neededBy = pages.get(to) ?? [];
      if (weight.minified < (neededBy.length > 0 ? LEAST_PAGE : LEAST)) continue;
      const users = neededBy.length > 0 ? neededBy : isShared(from) ? usersOf(to, weight) : [];
      const patterns = new Set(users.map((r) => r.pattern));
      const paidBy = starts
        .filter((s) => s.modules.has(to) && !patterns.has(s.route.pattern))
        .map((s) => s.route.pattern);
      if (patterns.size === 0 || paidBy.length === 0) continue;
      const siblings = neededBy.length > 0 ? deferredSiblings(from) : 0;
      const key = importKey(snapshot, snapshot.imports[i]);
      const [name, target] = [shortName(snapshot.modules[to].path), snapshot.modules[to].path];
      leaks.push({
        import: key,
        from: snapshot.modules[from].path,
        line,
        to: target,
        name,
        neededBy: [...patterns],
        paidBy,
        weight,
        siblings,
      });
    }
  }
  return leaks.sort((a, b) => b.weight.minified - a.weight.minified);

  /** The entry, a layout of every route, or what only they import: not another route's page. */
  function isShared(m: number): boolean {
    return entries.includes(m) || shared.includes(m);
  }

  /** Routes whose own page reaches most of what an import carries; none for what holds the routes together. */
  function usersOf(to: number, weight: Weight): Route[] {
    const own = reacher.from([to]);
    if (own.some((m) => pages.has(m))) return [];
    const routes: Route[] = [];
    for (const [page, used] of pages) {
      const users = pages.get(page)!;
      if (users.length === starts.length) continue;
      const reach = pageReach.get(page)!;
      let common = 0;
      for (const m of own) if (reach.has(m)) common += snapshot.modules[m].bytes.minified;
      if (common >= weight.minified * MOSTLY && !reach.has(to)) routes.push(...used);
    }
    return routes;
  }

  function deferredSiblings(from: number): number {
    let count = 0;
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      if (effective.deferred[i] && pages.has(snapshot.imports[i].to)) count++;
    }
    return count;
  }
}
