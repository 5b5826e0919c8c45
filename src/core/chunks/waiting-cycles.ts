import { effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Import } from '../snapshot/module-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { Reacher } from './reach.ts';

/**
 * Deferred imports that a module waits for while it starts, and that lead back to it over static imports: each waits
 * for the other, so neither ever starts (ECMA-262, evaluation of modules with top-level await).
 */
export function waitingCycles(snapshot: Snapshot, plan: Plan): Import[] {
  const { deferred } = effectivePlan(snapshot, plan);
  const reacher = new Reacher(graphIndex(snapshot), deferred);
  return snapshot.imports.filter(
    (item, i) => item.awaited && deferred[i] && reacher.from([item.to]).includes(item.from),
  );
}
