import { bare, isFunction, isNode } from '../syntax.ts';
import { loaderAt, type RouteEntry } from './expressions.ts';
import { dottedName } from './views.ts';

/** The loader of a route, by its name, and whether the router waits for code that it asks for itself (`isAwaited`). */
export function loading(given: unknown, isAwaited = false): Pick<RouteEntry, 'loads' | 'waits'> {
  const waits = isAwaited ? { waits: true as const } : {};
  const loader = isNode(given) ? bare(given) : null;
  if (!loader) return waits;
  // `loader: tideLoader(client)` gives what a function of that name makes.
  const named = loader.type === 'CallExpression' ? loader.callee : loader;
  const name = isFunction(loader) ? { name: loaderAt(loader), keys: [] } : dottedName(named);
  return name ? { loads: name, ...waits } : waits;
}
