import { planned } from '../chunks/planned.ts';
import { compileLoad } from '../load/compile.ts';
import { NOTHING_ELSE } from '../load/interactions.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { partWait } from '../visitors/part-wait.ts';
import { VisitCompiler } from '../visits/program.ts';

/** How long after the page has come to rest somebody asks for code that no part stands for. */
const REST_MS = 1000;

/** A wait for a split point's code, in ms from the act: of the part that it draws, or (where none is known) until it has run. */
export interface SplitWait {
  wait: number;
  until: 'shown' | 'answering' | 'run';
  /** Until all of the part is there, with its images and data; the wait itself for code that no part stands for. */
  complete: number;
}

/**
 * How long a person waits who asks for a split point's code on a route, once the landing has come to rest and without an
 * approach. Null for code that the landing fetches by itself or that the route never asks for.
 */
export function waitFor(
  snapshot: Snapshot,
  plan: Plan,
  pattern: string,
  target: string,
  conditions: Conditions,
): SplitWait | null {
  return waitsUnder(snapshot, plan, pattern, target, [conditions])[0];
}

/** The same under several conditions; chunks are formed once. */
export function waitsUnder(
  snapshot: Snapshot,
  plan: Plan,
  pattern: string,
  target: string,
  conditions: readonly Conditions[],
): (SplitWait | null)[] {
  const app = planned(snapshot, plan);
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  const part = route?.parts.find((p) => p.module === target);
  if (!route) return conditions.map(() => null);
  const landing = compileLoad(app, pattern);
  const [probe] = compileLoad(app, pattern, [{ target, atMs: 0 }]).steps;
  if (!probe) return conditions.map(() => null);
  const compiler = new VisitCompiler(app, () => NOTHING_ELSE);
  return conditions.map((under) => {
    const played = part ? partWait(compiler, snapshot, pattern, part, under) : null;
    if (played) return { wait: played.wait, until: played.until, complete: played.complete };
    const { milestones } = readTimeline(landing, simulate(landing, under), under);
    const rest = [milestones.timeToInteractive, milestones.interactive].filter(Number.isFinite);
    const atMs = Math.max(0, ...rest) + REST_MS;
    const program = compileLoad(app, pattern, [{ target, atMs }]);
    const [step] = simulate(program, under).steps;
    const wait = step ? step.ready - step.at : null;
    return wait === null ? null : { wait, until: 'run', complete: wait };
  });
}
