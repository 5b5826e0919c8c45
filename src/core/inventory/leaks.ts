import { carriedWeights, type Weight } from '../chunks/carried.ts';
import { Reacher } from '../chunks/reach.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Import } from '../snapshot/module-types.ts';
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
 * Finds two kinds of leaks: a page or layout that is imported at the start of routes that don't use it (by what all share, or
 * by another page), and an import in what all routes share that mostly brings code which the page of some routes needs by
 * itself. Heaviest first.
 */
export function findLeaks(snapshot: Snapshot, effective: EffectivePlan, starts: Start[]): Leak[] {
  const routes = new RoutesOfModules(snapshot, effective, starts);
  const index = graphIndex(snapshot);
  const leaks = new Map<string, Leak>();
  const lookFrom = (roots: number[]) => {
    const carried = carriedWeights(snapshot, index, effective.deferred, roots);
    for (const from of carried.modules) {
      const seen = new Set<number>();
      for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
        const i = index.outgoing[e];
        const { to } = snapshot.imports[i];
        if (effective.deferred[i] || seen.has(to)) continue;
        seen.add(to);
        const leak = leakBy(snapshot, snapshot.imports[i], carried.ofImport(from, to), routes, starts);
        if (leak && !leaks.has(leak.import)) leaks.set(leak.import, leak);
      }
    }
  };
  lookFrom([...routes.entries, ...routes.shared]);
  for (const page of routes.withOthersPages()) lookFrom([...routes.entries, ...routes.shared, page]);
  return [...leaks.values()].sort((a, b) => b.weight.minified - a.weight.minified);
}

/** What leaks by one import that carries so much; null where nothing does that is worth a line. */
function leakBy(
  snapshot: Snapshot,
  item: Import,
  weight: Weight,
  routes: RoutesOfModules,
  starts: readonly Start[],
): Leak | null {
  const { from, to, line } = item;
  const isPage = routes.withPage(to).length > 0;
  if (weight.minified < (isPage ? LEAST_PAGE : LEAST)) return null;
  const users = isPage ? routes.withPage(to) : routes.isShared(from) ? routes.using(to, weight) : [];
  const neededBy = new Set(users.map((r) => r.pattern));
  const paidBy = starts.filter((s) => s.modules.has(to) && !neededBy.has(s.route.pattern)).map((s) => s.route.pattern);
  if (neededBy.size === 0 || paidBy.length === 0) return null;
  return {
    import: importKey(snapshot, item),
    from: snapshot.modules[from].path,
    line,
    to: snapshot.modules[to].path,
    name: shortName(snapshot.modules[to].path),
    neededBy: [...neededBy],
    paidBy,
    weight,
    siblings: isPage ? routes.deferredPagesOf(from) : 0,
  };
}

/** Which routes modules belong to: as their page or layout, or by what those reach. */
class RoutesOfModules {
  readonly entries: readonly number[];
  /** Pages and layouts of every route. */
  readonly shared: readonly number[];
  private readonly pages = new Map<number, Route[]>();
  private readonly reacher: Reacher;
  private readonly reach: ReadonlyMap<number, ReadonlySet<number>>;

  constructor(
    private readonly snapshot: Snapshot,
    private readonly effective: EffectivePlan,
    private readonly starts: readonly Start[],
  ) {
    const index = graphIndex(snapshot);
    for (const { route } of starts)
      for (const m of [...route.layouts, route.page].flatMap((path) => index.moduleAt.get(path) ?? []))
        this.pages.set(m, [...this.withPage(m), route]);
    this.entries = snapshot.entries
      .filter((e) => e.kind === 'document')
      .flatMap((e) => e.modules.flatMap((path) => index.moduleAt.get(path) ?? []));
    this.shared = [...this.pages].filter(([, routes]) => routes.length === starts.length).map(([m]) => m);
    this.reacher = new Reacher(index, effective.deferred);
    this.reach = new Map([...this.pages.keys()].map((m) => [m, new Set(this.reacher.from([m]))]));
  }

  /** Routes of which a module is the page or a layout. */
  withPage(m: number): Route[] {
    return this.pages.get(m) ?? [];
  }

  /** Pages and layouts of some routes that import, through whatever modules, those of others. */
  withOthersPages(): number[] {
    return [...this.pages].flatMap(([page, routes]) => {
      if (this.isShared(page)) return [];
      const isOthers = (m: number) =>
        m !== page && this.withPage(m).length > 0 && !this.withPage(m).some((r) => routes.includes(r));
      return [...this.reach.get(page)!].some(isOthers) ? [page] : [];
    });
  }

  /** The entry, a layout of every route, or what only they import: not another route's page. */
  isShared(m: number): boolean {
    return this.entries.includes(m) || this.shared.includes(m);
  }

  /** Routes whose own page reaches most of what an import carries; none for what holds the routes together. */
  using(to: number, weight: Weight): Route[] {
    const own = this.reacher.from([to]);
    if (own.some((m) => this.pages.has(m))) return [];
    return [...this.pages].flatMap(([page, routes]) => {
      const reach = this.reach.get(page)!;
      if (routes.length === this.starts.length || reach.has(to)) return [];
      let common = 0;
      for (const m of own) if (reach.has(m)) common += this.snapshot.modules[m].bytes.minified;
      return common >= weight.minified * MOSTLY ? routes : [];
    });
  }

  /** How many pages a module imports deferred. */
  deferredPagesOf(from: number): number {
    const index = graphIndex(this.snapshot);
    const own = index.outgoing.subarray(index.outStart[from], index.outStart[from + 1]);
    return own.filter((i) => this.effective.deferred[i] && this.pages.has(this.snapshot.imports[i].to)).length;
  }
}
