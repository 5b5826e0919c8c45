import type { Route } from '../core/snapshot/route-types.ts';
import type { Failed } from '../core/snapshot/types.ts';
import type { RouteNode, RouteTable } from './route-table.ts';

export interface TableInModule {
  /** Module that holds the tables. */
  path: string;
  realm: string;
  tables: RouteTable[];
  /** specifier → path of the module that it leads to. */
  resolved: ReadonlyMap<string, string>;
}

type FoundRoute = Pick<Route, 'pattern' | 'realm' | 'layouts' | 'page' | 'evidence'>;

/**
 * Puts the route tables of an app together: a table in a module that another table names as a view is nested there,
 * and that view is a layout around it. An entry whose module can't be found is listed with its line.
 */
export function findRoutes(modules: TableInModule[]): { routes: FoundRoute[]; failed: Failed[] } {
  const byPath = new Map(modules.map((m) => [m.path, m]));
  const nested = new Set<string>();
  const views = (nodes: RouteNode[], holder: TableInModule) => {
    for (const node of nodes) {
      const path = node.view === null ? undefined : holder.resolved.get(node.view);
      if (path !== undefined && path !== holder.path && byPath.has(path)) nested.add(path);
      views(node.children, holder);
    }
  };
  for (const holder of modules) for (const table of holder.tables) views(table, holder);

  const routes: FoundRoute[] = [];
  const failed: Failed[] = [];
  const seen = new Set<string>();
  const visit = (node: RouteNode, holder: TableInModule, above: string, layouts: string[], open: Set<string>) => {
    const pattern = joined(above, node.path);
    const view = node.view === null ? null : holder.resolved.get(node.view);
    if (view === undefined) {
      failed.push({
        path: holder.path,
        line: node.line,
        message: `the route ${pattern} leads to ${node.view}, which can't be found`,
      });
      return;
    }
    const inner = view === null || open.has(view) ? undefined : byPath.get(view);
    const chain = view === null ? layouts : [...layouts, view];
    if (node.children.length > 0) {
      for (const child of node.children) visit(child, holder, pattern, chain, open);
    } else if (inner && inner !== holder && inner.tables.length > 0) {
      for (const table of inner.tables)
        for (const child of table) visit(child, inner, pattern, chain, new Set([...open, view!]));
    } else if (view !== null && seen.has(pattern)) {
      failed.push({
        path: holder.path,
        line: node.line,
        message: `the route ${pattern} is there twice; the first one counts`,
      });
    } else if (view !== null) {
      seen.add(pattern);
      routes.push({
        pattern,
        realm: holder.realm,
        layouts,
        page: view,
        evidence: { path: holder.path, line: node.line },
      });
    }
  };
  for (const holder of modules) {
    if (nested.has(holder.path)) continue;
    for (const table of holder.tables) for (const node of table) visit(node, holder, '/', [], new Set());
  }
  return { routes, failed };
}

function joined(above: string, path: string): string {
  if (path.startsWith('/') && path.startsWith(above)) return path;
  const pieces = `${above}/${path}`.split('/').filter((p) => p !== '');
  return `/${pieces.join('/')}`;
}
