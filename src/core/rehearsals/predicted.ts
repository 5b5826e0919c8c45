import { planned } from '../chunks/planned.ts';
import type { Plan } from '../plan/types.ts';
import { type Prediction, predict } from '../predict/predict.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { VisitStep } from '../visits/types.ts';
import { movedTo } from './acts.ts';
import type { Predicted } from './quantities.ts';
import type { Rehearsal } from './types.ts';

/** Long enough for a landing to have come to rest before somebody acts, in ms. */
const DWELL_MS = 15_000;

/** What is predicted of what was rehearsed: the landing, and the wait for the act or move that followed. `snapshot`: as the plan ships it. */
export function predictedOf(
  snapshot: Snapshot,
  plan: Plan,
  { pattern, act }: Pick<Rehearsal, 'pattern' | 'act'>,
  conditions: Conditions,
  made: Prediction = predict(snapshot, plan, pattern, conditions),
): Predicted {
  const { reading, timeline } = made;
  const landing = { milestones: reading.milestones, timeline };
  return act === undefined ? landing : { ...landing, wait: waitFor(snapshot, plan, pattern, act, conditions) };
}

function waitFor(snapshot: Snapshot, plan: Plan, landing: string, act: string, conditions: Conditions): number {
  const pauses = { dwellMs: DWELL_MS, leadMs: 0 };
  const steps: VisitStep[] = movedTo(snapshot, landing, act)
    ? [{ does: 'move', to: act, by: 'inside', holds: [], ...pauses }]
    : [{ does: 'act', part: act, ...pauses }];
  const { experiences } = playVisit(
    new VisitCompiler(planned(snapshot, plan)),
    { name: '', landing, holds: [], steps },
    conditions,
  );
  return experiences.find((e) => e.step === 0)?.wait ?? Number.NaN;
}
