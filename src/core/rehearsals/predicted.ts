import { planned } from '../chunks/planned.ts';
import type { Plan } from '../plan/types.ts';
import { type Prediction, predict } from '../predict/predict.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import { actsOf, stepOf } from './acts.ts';
import type { Predicted } from './quantities.ts';
import type { Rehearsal } from './types.ts';

/** Long enough for a landing to have come to rest before somebody acts, in ms. */
const DWELL_MS = 15_000;

/** What is predicted of what was rehearsed: the landing, and what is waited for each act that followed. `snapshot`: as the plan ships it. */
export function predictedOf(
  snapshot: Snapshot,
  plan: Plan,
  { pattern, acts = [] }: Pick<Rehearsal, 'pattern' | 'acts'>,
  conditions: Conditions,
  made: Prediction = predict(snapshot, plan, pattern, conditions),
): Predicted {
  const { reading, timeline } = made;
  const landing = { milestones: reading.milestones, timeline };
  return acts.length === 0 ? landing : { ...landing, waits: waitsFor(snapshot, plan, pattern, acts, conditions) };
}

function waitsFor(
  snapshot: Snapshot,
  plan: Plan,
  landing: string,
  acts: readonly string[],
  conditions: Conditions,
): number[] {
  const steps = actsOf(snapshot, landing, acts).map((act) => stepOf(act, DWELL_MS));
  const { experiences } = playVisit(
    new VisitCompiler(planned(snapshot, plan)),
    { name: '', landing, holds: [], steps },
    conditions,
  );
  return steps.map((_, at) => experiences.find((e) => e.step === at)?.wait ?? Number.NaN);
}
