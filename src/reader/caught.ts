import type { Import, Module } from '../core/snapshot/module-types.ts';
import type { Route } from '../core/snapshot/route-types.ts';
import type { DrawingModule } from './parts/find-parts.ts';

/** Components of packages that do so are called alike. */
const CATCHING_NAME = /error-?boundary/i;
/** A file beside a page that a framework shows in its place. */
const ERROR_FILE = /\/(global-)?error\.[jt]sx?$/;

/** The app as far as it is asked who tells a person that code couldn't be loaded. */
export interface FailingApp {
  modules: readonly Pick<Module, 'path'>[];
  imports: readonly Import[];
  routes: readonly Pick<Route, 'layouts' | 'page' | 'evidence'>[];
  /** Entries, which everything is drawn by. */
  starts: readonly string[];
  moduleAt(path: string): DrawingModule | undefined;
  /** All files that were met. */
  files: readonly string[];
}

/**
 * Deferred imports whose failure a person is told of: caught where they are made, drawn inside a component that catches, or
 * on routes all of which are drawn so. Gives their places among the imports.
 */
export function caughtImports(app: FailingApp): Set<number> {
  const { modules, imports, routes, moduleAt } = app;
  const leads = leadsOf(app);
  const errorFolders = app.files.filter((f) => ERROR_FILE.test(f)).map((f) => f.replace(/[^/]*$/, ''));
  const isOpen = (route: FailingApp['routes'][number]) => !isCovered(route, app, errorFolders);
  const open = new Set(routes.filter(isOpen));
  const reached = reachOf(routes, leads);
  const reachedOpen = reachOf([...open], leads);
  const caught = new Set<number>();
  imports.forEach(({ kind, from, to }, i) => {
    if (kind !== 'dynamic') return;
    const [asking, asked] = [modules[from].path, modules[to].path];
    const own = routes.filter((r) => r.page === asked || r.layouts.includes(asked));
    const covered = own.length > 0 ? own.every((r) => !open.has(r)) : reached.has(asking) && !reachedOpen.has(asking);
    if (covered || isInside(asking, asked, moduleAt)) caught.add(i);
  });
  return caught;
}

/** Modules that layouts and pages of routes lead to, themselves among them. */
function reachOf(routes: FailingApp['routes'], leads: ReadonlyMap<string, readonly string[]>): Set<string> {
  const seen = new Set(routes.flatMap((r) => [...r.layouts, r.page]));
  for (const path of seen) for (const to of leads.get(path) ?? []) seen.add(to);
  return seen;
}

function leadsOf({ modules, imports }: FailingApp): Map<string, string[]> {
  const leads = new Map<string, string[]>();
  for (const { from, to } of imports) {
    const path = modules[from].path;
    const all = leads.get(path) ?? [];
    all.push(modules[to].path);
    leads.set(path, all);
  }
  return leads;
}

/** Whether something around a route catches: its table, what draws its table, a layout, an entry, or a file beside its page. */
function isCovered(
  { layouts, page, evidence }: FailingApp['routes'][number],
  app: FailingApp,
  errorFolders: readonly string[],
): boolean {
  const { moduleAt, starts } = app;
  if (evidence && moduleAt(evidence.path)?.serves.failures.tells) return true;
  const around = [...layouts, ...starts, ...(evidence ? [evidence.path] : [])];
  if (around.some((path) => drawsBoundary(path, moduleAt))) return true;
  return errorFolders.some((folder) => page.startsWith(folder));
}

function drawsBoundary(path: string, moduleAt: FailingApp['moduleAt']): boolean {
  return (moduleAt(path)?.uses ?? []).some(({ specifier }) => catches(path, specifier, moduleAt));
}

function catches(path: string, specifier: string | null, moduleAt: FailingApp['moduleAt']): boolean {
  if (specifier === null) return false;
  const target = moduleAt(path)?.resolved.get(specifier);
  return CATCHING_NAME.test(specifier) || (target !== undefined && moduleAt(target)?.serves.failures.catches === true);
}

/** Whether a module draws what it defers only inside of components that catch. */
function isInside(asking: string, asked: string, moduleAt: FailingApp['moduleAt']): boolean {
  const module = moduleAt(asking);
  const own = module?.uses.filter((u) => module.resolved.get(u.specifier ?? '') === asked) ?? [];
  return own.length > 0 && own.every(({ inside }) => inside.some((s) => catches(asking, s, moduleAt)));
}
