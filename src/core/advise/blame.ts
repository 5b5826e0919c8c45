import { withDecision } from '../plan/decisions.ts';
import { takenOut } from '../plan/taken-out.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { effectOf } from './effect.ts';
import { Scorer } from './score.ts';
import type { Effect } from './types.ts';

/** The price of one import: what all landings and waits would be without it in the start. */
export interface Blame {
  effect: Effect;
  /** Share of landings that are interactive later because of it. */
  paidBy: number;
}

/** Below this nobody pays, in ms. */
const LEAST = 1;

/**
 * What an import costs the visitors of an app under a plan: everything is scored again with what it brings taken out of the
 * starts; see takenOut.
 */
export function blame(
  app: Snapshot,
  plan: Plan,
  importKey: string,
  model: VisitorModel,
  conditions: Conditions,
): Blame {
  const scorer = new Scorer(app, model, conditions);
  const without = takenOut(app, plan, importKey).reduce(withDecision, plan);
  const effect = effectOf(scorer.score(plan), scorer.score(without));
  const paidBy = effect.routes.reduce((sum, r) => sum + (r.interactive < -LEAST ? r.share : 0), 0);
  return { effect, paidBy };
}
