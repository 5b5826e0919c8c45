import { graphIndex } from '../snapshot/graph-index.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** The modules that a landing itself asks for: entry, layouts and page. They can't leave its start. */
export function startModules(snapshot: Snapshot, route: Route): number[] {
  const entry = snapshot.entries.find((e) => e.realm === route.realm && e.kind === 'document');
  const { moduleAt } = graphIndex(snapshot);
  return [...(entry?.modules ?? []), ...route.layouts, route.page].flatMap((path) => moduleAt.get(path) ?? []);
}
