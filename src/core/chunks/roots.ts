import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Entry } from '../snapshot/module-types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { AllReach } from './all-reach.ts';
import { type Bits, has } from './bits.ts';

import type { RootKind } from './types.ts';

export interface RootDraft {
  id: string;
  kind: RootKind;
  target: number[];
  routes: string[];
  askedBy: { root: number; import: number }[];
  /** Modules reachable over static imports. */
  reach: Bits;
}

/** Everything that can be a root under a plan: entries, targets of deferred imports, pages and layouts. */
export function rootCandidates(snapshot: Snapshot, index: GraphIndex, deferred: Uint8Array): number[][] {
  const single = new Set<number>();
  for (let i = 0; i < deferred.length; i++) if (deferred[i]) single.add(snapshot.imports[i].to);
  for (const { layouts, page } of snapshot.routes)
    for (const path of [...layouts, page]) for (const m of modulesAt(index, [path])) single.add(m);
  return [...snapshot.entries.map((e) => modulesAt(index, e.modules)), ...[...single].map((m) => [m])];
}

function modulesAt(index: GraphIndex, paths: readonly string[]): number[] {
  return paths.flatMap((path) => index.moduleAt.get(path) ?? []);
}

/**
 * The live roots of one realm: the entry first, then every distinct target of a deferred import that a live root's
 * static reach makes, and route modules that no code reaches: those the route convention asks for, from the entry.
 * Sorted by path after the entry.
 */
export function collectRoots(
  snapshot: Snapshot,
  index: GraphIndex,
  deferred: Uint8Array,
  reach: AllReach,
  entry: Entry,
): RootDraft[] {
  const starts = modulesAt(index, entry.modules);
  const routes = snapshot.routes.filter((r) => r.realm === entry.realm);
  const drafts: RootDraft[] = [];
  const draftOf = new Map<number, number>();
  const open: number[] = [];
  const make = (target: number[], kind: RootKind): number => {
    const at = drafts.length;
    const id =
      kind === 'entry' || kind === 'worker'
        ? `${entry.realm}:entry`
        : `${entry.realm}:${snapshot.modules[target[0]].path}`;
    drafts.push({ id, kind, target, routes: [], askedBy: [], reach: reach.of(target) });
    open.push(at);
    return at;
  };
  const ask = (target: number, root: number, via: number) => {
    let at = draftOf.get(target);
    if (at === undefined) {
      at = make([target], 'split point');
      draftOf.set(target, at);
    }
    drafts[at].askedBy.push({ root, import: via });
  };
  const askers = askersIn(snapshot, deferred);
  const follow = () => {
    for (let root = open.pop(); root !== undefined; root = open.pop()) {
      const { reach: own } = drafts[root];
      for (const m of askers) {
        if (!has(own, m)) continue;
        for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
          const i = index.outgoing[e];
          if (deferred[i]) ask(snapshot.imports[i].to, root, i);
        }
      }
    }
  };

  make(starts, entry.kind === 'worker' ? 'worker' : 'entry');
  follow();
  const reached = (m: number) => drafts.some((d) => has(d.reach, m));
  const named = modulesAt(
    index,
    routes.flatMap((r) => [...r.layouts, r.page]),
  );
  for (const m of new Set(named.filter((m) => !reached(m)))) ask(m, 0, -1);
  follow();

  nameRoutes(drafts, routes, (path) => draftOf.get(index.moduleAt.get(path) ?? -1) ?? 0);
  return canonical(drafts);
}

/** Says of roots which routes they belong to, and which are pages or layouts; what a page also is counts as a page. */
function nameRoutes(drafts: RootDraft[], routes: readonly Route[], draftAt: (path: string) => number): void {
  for (const route of routes) {
    drafts[0].routes.push(route.pattern);
    for (const [at, path] of [...route.layouts, route.page].entries()) {
      const draft = drafts[draftAt(path)];
      if (draft === drafts[0]) continue;
      const isPage = at === route.layouts.length;
      if (isPage) draft.kind = 'page';
      else if (draft.kind !== 'page') draft.kind = 'layout';
      if (!draft.routes.includes(route.pattern)) draft.routes.push(route.pattern);
    }
  }
}

/** Modules that make deferred imports. */
function askersIn(snapshot: Snapshot, deferred: Uint8Array): number[] {
  const askers = new Set<number>();
  for (let i = 0; i < deferred.length; i++) if (deferred[i]) askers.add(snapshot.imports[i].from);
  return [...askers];
}

/** Entry first, then by id; the order of the input arrays must not show in the result. */
function canonical(drafts: RootDraft[]): RootDraft[] {
  const order = drafts.map((_, i) => i);
  order.sort((a, b) => (a === 0 ? -1 : b === 0 ? 1 : drafts[a].id < drafts[b].id ? -1 : 1));
  const place = new Array<number>(drafts.length);
  order.forEach((old, at) => {
    place[old] = at;
  });
  return order.map((old) => {
    const draft = drafts[old];
    draft.routes.sort();
    draft.askedBy = draft.askedBy
      .map((a) => ({ root: place[a.root], import: a.import }))
      .sort((a, b) => a.root - b.root || a.import - b.import);
    return draft;
  });
}
