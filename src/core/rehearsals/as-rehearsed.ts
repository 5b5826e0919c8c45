import type { Plan } from '../plan/types.ts';
import type { Rehearsal } from './types.ts';

/** The plan as it was run: without what only a person can edit in. Predictions that are laid beside a rehearsal are of this one. */
export function asRehearsed(plan: Plan, { leftOut }: Pick<Rehearsal, 'leftOut'>): Plan {
  if (leftOut.length === 0) return plan;
  const out = new Set(leftOut.map((l) => l.decision));
  return { ...plan, decisions: plan.decisions.filter((_, at) => !out.has(at)) };
}
