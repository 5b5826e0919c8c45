import { decisionWords, subjectOf, withoutSubject } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { LandingFigures } from '../vocabulary/measures.ts';
import { PlanFigures } from './figures.ts';

/** What one decision of a plan changes on a landing. Less is better for every figure, so that a gain is negative. */
export interface Earned {
  subject: string;
  words: string;
  /** Taken by itself, compared with the app as built. */
  alone: LandingFigures;
  /** Taken after all others: what the plan would lose without it. */
  last: LandingFigures;
}

export interface EarnedTable {
  decisions: Earned[];
  /** The whole plan compared with the app as built. */
  total: LandingFigures;
}

/**
 * Which decision of a plan earned what on a landing: each one in by itself, and each one left out of the whole. The two differ
 * where decisions help or stand in for one another.
 */
export function earnedBy(app: Snapshot, plan: Plan, route: string, conditions: Conditions): EarnedTable {
  const figures = (of: Plan) => new PlanFigures(app, of).landing(route, conditions);
  const nothing = figures({ ...plan, decisions: [] });
  const all = figures(plan);
  const decisions = plan.decisions
    .filter((d) => d.kind !== 'put aside')
    .map((decision) => ({
      subject: subjectOf(decision),
      words: decisionWords(decision),
      alone: change(nothing, figures({ ...plan, decisions: [decision] })),
      last: change(figures(withoutSubject(plan, subjectOf(decision))), all),
    }));
  return { decisions, total: change(nothing, all) };
}

function change(from: LandingFigures, to: LandingFigures): LandingFigures {
  const keys = Object.keys(from) as (keyof LandingFigures)[];
  return Object.fromEntries(keys.map((k) => [k, to[k] - from[k]])) as LandingFigures;
}
