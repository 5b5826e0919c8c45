import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Decision, Plan } from './types.ts';

/**
 * The decisions that take what an import brings out of the starts: it is detached, and what is neither a part nor a page of
 * a route (whose place says when it is fetched) waits until it is used first. Detached alone it would only leave the file:
 * it is asked for while the screen is drawn.
 */
export function takenOut(snapshot: Snapshot, plan: Plan, importKey: string): Decision[] {
  const detach: Decision = { kind: 'detach', import: importKey };
  const i = graphIndex(snapshot).importAt.get(importKey);
  if (i === undefined) return [detach];
  const { path } = snapshot.modules[snapshot.imports[i].to];
  const hasPlace = snapshot.routes.some(
    (r) => r.page === path || r.layouts.includes(path) || r.parts.some((p) => p.module === path),
  );
  const isPlanned = plan.decisions.some((d) => d.kind === 'trigger' && d.splitPoint === path);
  return hasPlace || isPlanned ? [detach] : [detach, { kind: 'trigger', splitPoint: path, fetch: { on: 'action' } }];
}
