import { idAround, pathOfId } from './around-ids.ts';
import type { ParentedRoute, View } from './expressions.ts';
import type { Definition, Names, RouteModule } from './names.ts';
import { patternOf } from './patterns.ts';

/** What a route draws, as paths of modules, with the names that it draws of them. */
export interface DrawnViews {
  page: string | null;
  components: readonly Pick<Definition, 'module' | 'local'>[];
}

/** A route that is found by what is around it. */
export interface FoundByParents {
  pattern: string;
  holder: RouteModule;
  line: number;
  layouts: string[];
  page: string;
  components: DrawnViews['components'];
  /** The loaders of it and of what is around it, with the modules that name them. */
  loaders: { loads: ParentedRoute['loads']; holder: RouteModule }[];
  /** Its code comes in a deferred way, which the router waits for. */
  waits: boolean;
}

/** All that is said of one route: what draws it may come later, in a module of its own. */
interface Known {
  said: { route: ParentedRoute; holder: RouteModule }[];
  around: string | null;
}

/**
 * Routes that name the one around them, or whose id tells it. One that draws others around an index is no address of its own, nor is one that only
 * stands around others.
 */
export function findParented(
  modules: readonly RouteModule[],
  names: Names,
  drawnBy: (views: readonly View[], holder: RouteModule) => DrawnViews,
): FoundByParents[] {
  const known = new Map<string, Known>();
  const ids = new Set<string>();
  const all = modules.flatMap((holder) =>
    (holder.package === null ? (holder.sheet?.parented ?? []) : []).map((route) => ({ route, holder })),
  );
  for (const { route } of all) if (route.id !== null) ids.add(route.id);
  const root = all.find(({ route }) => route.isRoot);
  const keyOf = (route: ParentedRoute, holder: RouteModule) =>
    route.isRoot ? ROOT : (route.id ?? `${holder.path}\n${route.name}`);
  for (const one of all) {
    const key = keyOf(one.route, one.holder);
    const before = known.get(key);
    if (before) before.said.push(one);
    else known.set(key, { said: [one], around: one.route.isRoot ? null : aroundOf(one.route, one.holder, ids, names) });
  }
  const within = (key: string): string[] => {
    const chain: string[] = [];
    for (let at: string | null = key; at !== null && !chain.includes(at); at = known.get(at)?.around ?? null)
      chain.unshift(at);
    return chain;
  };
  const found = [...known].flatMap(([key, { said }]) => {
    const chain = within(key).flatMap((k) => known.get(k) ?? []);
    if (key === ROOT || (root === undefined && said[0].route.id === null) || !isAddress(key, known)) return [];
    const drawn = chain.map((k) => k.said.map(({ route, holder }) => drawnBy(route.views, holder)));
    const pages = drawn.map((views) => views.findLast((v) => v.page !== null)?.page ?? null);
    const page = pages.at(-1) ?? null;
    if (page === null) return [];
    const { route, holder } = said.find((s) => s.route.views.length > 0) ?? said[0];
    return [
      {
        ...{ pattern: patternOfChain(chain, names), holder, line: route.line, page },
        layouts: [...new Set(pages.slice(0, -1).flatMap((p) => p ?? []))].filter((p) => p !== page),
        components: drawn.flat().flatMap((v) => v.components),
        loaders: chain
          .flatMap((k) => k.said)
          .flatMap((s) => (s.route.loads ? [{ loads: s.route.loads, holder: s.holder }] : [])),
        waits: chain.some((k) => k.said.some((s) => s.route.waits)),
      },
    ];
  });
  return found.sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
}

const ROOT = '';

/** The key of the route around one. */
function aroundOf({ id, parent }: ParentedRoute, holder: RouteModule, ids: ReadonlySet<string>, names: Names): string {
  if (id !== null) return idAround(id, ids) ?? ROOT;
  const defined = parent && names.definition(holder, parent);
  const there = defined?.module.sheet?.parented.find((r) => r.name === defined.local);
  if (!defined || !there || there.isRoot) return ROOT;
  return there.id ?? `${defined.module.path}\n${there.name}`;
}

/** Whether somebody can land on a route: it has a path of its own, or is the index of what is around it, and no index stands in it. */
function isAddress(key: string, known: ReadonlyMap<string, Known>): boolean {
  const { route } = known.get(key)!.said[0];
  const { around } = known.get(key)!;
  const aroundId = around === null ? null : (known.get(around)?.said[0].route.id ?? null);
  const onlyAround =
    route.id === null ? route.path === null : !isIndex(route) && pathOfId(route.id) === pathOfId(aroundId ?? '/');
  if (onlyAround) return false;
  return ![...known].some(([other, k]) => other !== key && k.around === key && isIndex(k.said[0].route));
}

function isIndex({ id, path }: ParentedRoute): boolean {
  return id === null ? path === '/' || path === '' : id.endsWith('/');
}

function patternOfChain(chain: readonly Known[], names: Names): string {
  const { route } = chain.at(-1)!.said[0];
  if (route.id !== null) return patternOf('/', pathOfId(route.id), false);
  return chain.reduce((above, { said: [{ route: r, holder }] }) => {
    const path = r.isRoot ? '' : (names.text(holder, r.path) ?? '');
    return patternOf(above, pathOfId(path).slice(1), false);
  }, '/');
}
