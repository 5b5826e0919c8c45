import type { Route } from '../../core/snapshot/route-types.ts';
import type { Failed } from '../../core/snapshot/types.ts';
import type { RouteEntry, RouteExpression, View } from './expressions.ts';
import { findParented } from './find-parented.ts';
import { type Definition, Names, type RouteModule } from './names.ts';
import { patternOf } from './patterns.ts';

/** `components`: the top-level names that it draws of modules, those that only stand around its page among them, by path. */
type FoundRoute = Pick<Route, 'pattern' | 'realm' | 'layouts' | 'page' | 'evidence'> & {
  components: ReadonlyMap<string, ReadonlySet<string>>;
  /** Functions that the router calls, and waits for, before it draws the page. */
  loaders: readonly { path: string; name: string }[];
  /** The router draws nothing, what stands around the page neither, before it has what the page needs. */
  shellWaits: boolean;
};

/** A top-level name of a module. */
type Component = Pick<Definition, 'module' | 'local'>;

/** An entry with the module whose names it uses. */
interface Placed {
  entry: RouteEntry;
  /** What comes before its path: of lists that share a beginning. */
  prefix: string;
  holder: RouteModule;
}

/** What the routes around an entry bring: what of which modules they draw, and what is called for them. */
interface Around {
  components: readonly Component[];
  loaders: FoundRoute['loaders'];
  waits: boolean;
  hasFallback: boolean;
}

const NOTHING_AROUND: Around = { components: [], loaders: [], waits: false, hasFallback: false };

/** What an entry draws: paths of the app's own modules. */
interface Drawn {
  layouts: string[];
  page: string | null;
  /** What of which modules is drawn, as far as it has a name. */
  components: Component[];
  /** Routes that stand where a view would. */
  routes: Placed[];
  /** Specifier or name that leads nowhere. */
  lost: string | null;
}

/** What one view draws. */
type Viewed = Pick<Drawn, 'components' | 'routes' | 'lost'> & { paths: string[]; isLayout: boolean };

/**
 * Puts what modules say about routes together: names are followed into other modules, routes in the module of a view are nested
 * there, and that view is a layout around them. What isn't understood, and an entry whose module can't be found, is listed
 * with its line.
 */
export function findRoutes(modules: RouteModule[]): { routes: FoundRoute[]; failed: Failed[] } {
  return new Finder(modules).find();
}

class Finder {
  private readonly names: Names;
  /** Roots that others take in, by module and owner. */
  private readonly consumed = new Set<string>();
  /** Modules whose routes are nested below a view. */
  private readonly nested = new Set<string>();
  private readonly routes: FoundRoute[] = [];
  private readonly failed: Failed[] = [];
  private readonly seen = new Set<string>();
  private readonly told = new Set<string>();

  constructor(private readonly modules: RouteModule[]) {
    this.names = new Names(new Map(modules.map((m) => [m.path, m])));
  }

  find(): { routes: FoundRoute[]; failed: Failed[] } {
    const holders = this.modules.filter((m) => m.package === null && (m.sheet?.roots.length ?? 0) > 0);
    for (const holder of holders)
      for (const { owner, expression, onlyNamed } of holder.sheet!.roots)
        if (!onlyNamed) this.note(expression, holder, owner, new Set());
    for (const holder of holders) {
      if (this.nested.has(holder.path)) continue;
      for (const placed of this.rootsOf(holder)) this.visit(placed, '/', [], NOTHING_AROUND, new Set());
    }
    this.takeParented();
    return { routes: this.routes, failed: this.failed };
  }

  private takeParented(): void {
    const drawnBy = (views: readonly View[], holder: RouteModule) => {
      const entry: RouteEntry = { is: 'route', path: '', views: [...views], children: null, redirects: false, line: 1 };
      return this.drawnBy({ entry, prefix: '', holder });
    };
    for (const { pattern, holder, line, components, loaders, waits, ...drawn } of findParented(
      this.modules,
      this.names,
      drawnBy,
    )) {
      if (this.seen.has(pattern)) continue;
      this.seen.add(pattern);
      this.routes.push({
        ...{ pattern, realm: holder.realm, ...drawn, components: namesByPath(components) },
        loaders: loaders.flatMap((l) => this.loadersOf(l, l.holder)),
        shellWaits: waits || loaders.length > 0,
        evidence: { path: holder.path, line },
      });
    }
  }

  /** Notes which roots are taken in by others, and which modules hold routes below a view. */
  private note(expression: RouteExpression, holder: RouteModule, owner: string | null, open: Set<string>): void {
    for (const placed of this.entriesOf(expression, holder, open, (taken) => {
      if (taken.module !== holder || taken.local !== owner) this.consumed.add(keyOf(taken.module.path, taken.local));
    })) {
      const { page, routes } = this.drawnBy(placed);
      for (const inner of routes) if (inner.holder !== holder) this.nested.add(inner.holder.path);
      if (page !== null && page !== holder.path && this.names.at(page)?.sheet?.roots.some((r) => !r.onlyNamed))
        this.nested.add(page);
      if (placed.entry.children) this.note(placed.entry.children, placed.holder, owner, open);
    }
  }

  /** Entries of a module's own roots, without those that others take in. */
  private rootsOf(holder: RouteModule): Placed[] {
    return holder
      .sheet!.roots.filter((r) => !r.onlyNamed && (r.owner === null || !this.consumed.has(keyOf(holder.path, r.owner))))
      .flatMap(({ expression }) => this.entriesOf(expression, holder, new Set()));
  }

  /** Entries of an expression, with names followed; `taken` hears of every root that a name leads to. */
  private entriesOf(
    expression: RouteExpression,
    holder: RouteModule,
    open: ReadonlySet<string>,
    taken: (root: Definition) => void = () => {},
  ): Placed[] {
    switch (expression.is) {
      case 'route':
        return [{ entry: expression, prefix: '', holder }];
      case 'list':
        return expression.items.flatMap((item) => this.entriesOf(item, holder, open, taken));
      case 'prefix': {
        const prefix = this.names.text(holder, expression.path) ?? '';
        const inner = this.entriesOf(expression.inner, holder, open, taken);
        return inner.map((placed) => ({ ...placed, prefix: `${prefix}/${placed.prefix}` }));
      }
      case 'name': {
        const defined = this.names.definition(holder, expression.name);
        const found = defined ? this.entriesUnder(defined, open, taken) : [];
        // Names inside of an entry that was met before go in circles.
        if (found.length === 0 && !(defined && open.has(keyOf(defined.module.path, defined.local)))) {
          const { name, keys } = expression.name;
          const said = [name, ...keys].join('.');
          this.fail(holder, expression.line, `routes that aren’t understood are left out: those of ${said}`);
        }
        return found;
      }
      case 'module': {
        const target = this.names.at(holder.resolved.get(expression.specifier));
        return target ? this.entriesOfModule(target, expression.exported, open, taken) : [];
      }
      case 'unclear':
        this.fail(holder, expression.line, `routes that aren’t understood are left out: ${expression.said}`);
        return [];
    }
  }

  /** Entries of the roots that stand under a name. */
  private entriesUnder(defined: Definition, open: ReadonlySet<string>, taken: (root: Definition) => void): Placed[] {
    const { module, local } = defined;
    const key = keyOf(module.path, local);
    if (open.has(key) || module.package !== null) return [];
    const roots = module.sheet?.roots.filter((r) => r.owner === local) ?? [];
    if (roots.length === 0) return [];
    taken(defined);
    return roots.flatMap((r) => this.entriesOf(r.expression, module, new Set([...open, key]), taken));
  }

  /** Entries of a module that is asked for deferred: under the export that is taken, else all that it or its own imports hold. */
  private entriesOfModule(
    target: RouteModule,
    exported: string,
    open: ReadonlySet<string>,
    taken: (root: Definition) => void,
  ): Placed[] {
    const defined = this.names.exported(target, exported);
    const named = defined ? this.entriesUnder(defined, open, taken) : [];
    if (named.length > 0) return named;
    const near = [target, ...[...target.resolved.values()].flatMap((path) => this.names.at(path) ?? [])];
    const holder = near.find((m) => m.package === null && (m.sheet?.roots.length ?? 0) > 0);
    return (holder?.sheet?.roots ?? []).flatMap(({ owner, expression }) => {
      if (owner !== null) taken({ module: holder!, local: owner, keys: [] });
      return this.entriesOf(expression, holder!, open, taken);
    });
  }

  private visit(
    { entry, prefix, holder }: Placed,
    above: string,
    layouts: string[],
    around: Around,
    open: Set<string>,
  ): void {
    if (entry.redirects) return;
    const path = this.names.text(holder, entry.path);
    if (path === null) {
      this.fail(holder, entry.line, 'a route is left out: its path isn’t a constant');
      return;
    }
    const drawn = this.drawnBy({ entry, prefix, holder });
    const within: Around = {
      components: [...around.components, ...drawn.components],
      loaders: [...around.loaders, ...this.loadersOf(entry, holder)],
      waits: around.waits || entry.waits === true,
      hasFallback: around.hasFallback || entry.hasFallback === true,
    };
    const children = entry.children ? this.entriesOf(entry.children, holder, new Set()) : drawn.routes;
    const page = drawn.page;
    const inner = page === null || page === holder.path || open.has(page) ? undefined : this.names.at(page);
    const below = children.length > 0 ? children : inner?.sheet ? this.rootsOf(inner) : [];
    const pattern = patternOf(
      above,
      `${prefix}/${path}`.startsWith('//') ? path : `${prefix}${prefix && '/'}${path}`,
      below.length > 0,
    );
    if (drawn.lost !== null) {
      this.fail(holder, entry.line, `the route ${pattern} leads to ${drawn.lost}, which can't be found`);
      return;
    }
    if (below.length > 0) {
      const layoutsThere = [...layouts, ...drawn.layouts, ...(page === null ? [] : [page])];
      const opened = children.length > 0 || page === null ? open : new Set([...open, page]);
      for (const child of below) this.visit(child, pattern, layoutsThere, within, opened);
      return;
    }
    if (page === null) {
      if (entry.views.length > 0 || entry.children)
        this.fail(holder, entry.line, `the route ${pattern} is left out: nothing of the app’s own is drawn there`);
      return;
    }
    if (this.seen.has(pattern)) {
      this.fail(holder, entry.line, `the route ${pattern} is there twice; the first one counts`);
      return;
    }
    this.seen.add(pattern);
    const evidence = { path: holder.path, line: entry.line };
    const components = namesByPath(within.components);
    this.routes.push({
      ...{ pattern, realm: holder.realm, layouts: [...layouts, ...drawn.layouts], page },
      ...{ components, evidence },
      loaders: within.loaders,
      shellWaits: !within.hasFallback && (within.waits || within.loaders.length > 0),
    });
  }

  private loadersOf({ loads }: Pick<RouteEntry, 'loads'>, holder: RouteModule): FoundRoute['loaders'] {
    if (!loads) return [];
    if (loads.name.includes('@')) return [{ path: holder.path, name: loads.name }];
    const defined = this.names.definition(holder, loads);
    return defined ? [{ path: defined.module.path, name: [defined.local, ...defined.keys].join('.') }] : [];
  }

  /** What an entry draws: the innermost view that is the app's own is the page. */
  private drawnBy({ entry, holder }: Placed): Drawn {
    const found = entry.views.map((view) => this.modulesOf(view, holder, new Set()));
    const drawn: Drawn = { layouts: [], page: null, components: [], routes: [], lost: null };
    for (const { paths, isLayout, components, routes, lost } of found) {
      drawn.routes.push(...routes);
      drawn.components.push(...components);
      if (lost !== null) drawn.lost ??= lost;
      if (isLayout) drawn.layouts.push(...paths);
      else drawn.page = paths.at(-1) ?? drawn.page;
    }
    // A layout with nothing of the app's own inside is the page itself.
    if (drawn.page === null) drawn.page = drawn.layouts.pop() ?? null;
    if (drawn.page !== null) drawn.lost = null;
    return drawn;
  }

  private modulesOf(view: View, holder: RouteModule, seen: Set<string>): Viewed {
    const nothing: Viewed = { paths: [], isLayout: view.by === 'layout', components: [], routes: [], lost: null };
    if (view.by === 'here') return { ...nothing, paths: [holder.path] };
    if (view.by === 'element') {
      const path = this.modules.find((m) => m.elements.includes(view.element))?.path;
      return path === undefined ? { ...nothing, lost: view.element } : { ...nothing, paths: [path] };
    }
    if (view.by === 'file') {
      const path = this.names.at(holder.resolved.get(view.file))?.path;
      return path === undefined ? { ...nothing, lost: view.file } : { ...nothing, paths: [path] };
    }
    if (view.by === 'import') {
      const target = this.names.at(holder.resolved.get(view.specifier));
      if (!target) return { ...nothing, lost: view.specifier };
      const defined = this.names.exported(target, view.exported);
      return this.moduleOf(defined ?? { module: target, local: view.exported, keys: [] }, nothing, seen);
    }
    const defined = this.names.definition(holder, view.name);
    const specifier = holder.sheet?.imported.get(view.name.name)?.specifier;
    if (!defined)
      return specifier === undefined || !/^[./]/.test(specifier) ? nothing : { ...nothing, lost: specifier };
    // Components begin with a capital letter; what else stands there may be routes under a name.
    const routes = /^[A-Z]/.test(defined.local) ? [] : this.entriesUnder(defined, new Set(), this.take);
    return routes.length > 0 ? { ...nothing, routes } : this.moduleOf(defined, nothing, seen);
  }

  /** The module behind a definition, or those behind the views that it only wraps. */
  private moduleOf({ module, local }: Definition, nothing: Viewed, seen: Set<string>): Viewed {
    if (module.package !== null) return nothing;
    const own = { module, local };
    const key = keyOf(module.path, local);
    const wrapped = seen.has(key) ? undefined : module.sheet?.views.get(local);
    if (!wrapped) return { ...nothing, paths: [module.path], components: [own] };
    const inner = wrapped.map((v) => this.modulesOf(v, module, new Set([...seen, key])));
    const paths = inner.flatMap((i) => i.paths);
    const lost = inner.find((i) => i.lost !== null)?.lost ?? null;
    return {
      ...nothing,
      paths: paths.length > 0 ? [paths[paths.length - 1]] : lost === null ? [module.path] : [],
      components: [own, ...inner.flatMap((i) => i.components)],
      lost,
    };
  }

  /** Roots that a view leads to are no roots of their own. */
  private readonly take = ({ module, local }: Definition): void => {
    this.consumed.add(keyOf(module.path, local));
  };

  private fail({ path }: RouteModule, line: number, message: string): void {
    const key = `${path}\n${line}\n${message}`;
    if (!this.told.has(key)) this.failed.push({ path, line, message });
    this.told.add(key);
  }
}

function namesByPath(components: readonly Component[]): Map<string, Set<string>> {
  const names = new Map<string, Set<string>>();
  for (const { module, local } of components) names.set(module.path, (names.get(module.path) ?? new Set()).add(local));
  return names;
}

function keyOf(path: string, owner: string): string {
  return `${path}\n${owner}`;
}
