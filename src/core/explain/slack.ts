import type { LoadProgram } from '../load/types.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';

/** A milestone counts as moved when it comes later by more than this. */
const MOVED_MS = 1;
/** Slack is not looked for beyond this: such a file doesn't matter to the start. */
const MOST_MS = 8000;
const EXACT_MS = 5;

/**
 * How much later a resource's answer could begin without moving the interactive moment, in ms: found by running the
 * load again with its server that much slower, so that everything else that shares the link is accounted for. Gives
 * the most that is looked for where it never moves, null where the page never becomes interactive.
 */
export function slackOf(program: LoadProgram, conditions: Conditions, resource: number): number | null {
  const interactive = (lateMs: number) => {
    const resources = program.resources.map((r, i) => (i === resource ? { ...r, serverMs: r.serverMs + lateMs } : r));
    const tried = { ...program, resources };
    return readTimeline(tried, simulate(tried, conditions), conditions).milestones.interactive;
  };
  const now = interactive(0);
  const stays = (lateMs: number) => !(interactive(lateMs) > now + MOVED_MS);
  if (!Number.isFinite(now)) return null;
  if (stays(MOST_MS)) return MOST_MS;
  let low = 0;
  let high = MOST_MS;
  while (high - low > EXACT_MS) {
    const middle = (low + high) / 2;
    if (stays(middle)) low = middle;
    else high = middle;
  }
  return Math.round(low);
}
