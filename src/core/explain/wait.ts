import { formChunks } from '../chunks/form-chunks.ts';
import { compileLoad } from '../load/compile.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** How long after the page has come to rest the person acts. */
const REST_MS = 1000;

/**
 * How long a person waits who asks for a split point's code on a route, once the landing has come to rest: ms from the
 * act until the code has run. Null for code that the landing fetches by itself or that the route never asks for.
 */
export function waitFor(
  snapshot: Snapshot,
  plan: Plan,
  pattern: string,
  target: string,
  conditions: Conditions,
): number | null {
  return waitsUnder(snapshot, plan, pattern, target, [conditions])[0];
}

/** The same under several conditions; chunks are formed once. */
export function waitsUnder(
  snapshot: Snapshot,
  plan: Plan,
  pattern: string,
  target: string,
  conditions: readonly Conditions[],
): (number | null)[] {
  const graph = formChunks(snapshot, plan);
  const landing = compileLoad(snapshot, plan, graph, pattern);
  return conditions.map((under) => {
    const { milestones } = readTimeline(landing, simulate(landing, under), under);
    const rest = [milestones.timeToInteractive, milestones.interactive].filter(Number.isFinite);
    const atMs = Math.max(0, ...rest) + REST_MS;
    const program = compileLoad(snapshot, plan, graph, pattern, [{ target, atMs }]);
    const [step] = simulate(program, under).steps;
    return step ? step.ready - step.at : null;
  });
}
