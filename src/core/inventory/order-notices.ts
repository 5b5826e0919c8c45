import { styleConflicts } from '../chunks/style-order.ts';
import { waitingCycles } from '../chunks/waiting-cycles.ts';
import type { Plan } from '../plan/types.ts';
import type { Notice, Snapshot } from '../snapshot/types.ts';

/** What is wrong with the order in which modules start or style sheets apply under a plan, in words. */
export function orderNotices(snapshot: Snapshot, plan: Plan): Notice[] {
  const path = (m: number) => snapshot.modules[m].path;
  return [
    ...styleConflicts(snapshot, plan).map(
      ({ first, second, asSaid, reversed, pairs }): Notice => ({
        kind: 'style order',
        path: second,
        message: `comes after ${first} for ${asSaid}, before it for ${reversed}: which rules win depends on which came first${pairs > 1 ? ` (${pairs} pairs of places disagree)` : ''}`,
      }),
    ),
    ...waitingCycles(snapshot, plan).map(
      ({ from, to, line }): Notice => ({
        kind: 'waiting module',
        path: path(from),
        message: `waits at its top level (line ${line}) for ${path(to)}, which needs it: neither ever starts`,
      }),
    ),
  ];
}
