import { entryOf } from './decision-kinds.ts';
import type { Decision, Plan, ShipsBy } from './types.ts';

/** What a decision is about: two decisions with the same subject contradict each other, the later one holds. */
export function subjectOf(decision: Decision): string {
  return entryOf(decision).subject(decision);
}

/** The plan with one decision more; an earlier one about the same subject is replaced in its place. */
export function withDecision(plan: Plan, decision: Decision): Plan {
  const subject = subjectOf(decision);
  const at = plan.decisions.findIndex((d) => subjectOf(d) === subject);
  const decisions = at < 0 ? [...plan.decisions, decision] : plan.decisions.with(at, decision);
  return { ...plan, decisions };
}

/** The plan without the decision about that subject; the same plan when there is none. */
export function withoutSubject(plan: Plan, subject: string): Plan {
  const decisions = plan.decisions.filter((d) => subjectOf(d) !== subject);
  return decisions.length === plan.decisions.length ? plan : { ...plan, decisions };
}

/** The plan with several changes: decisions by their subjects that are taken back, then decisions that are made. */
export function planWith(
  plan: Plan,
  { decisions, withdraw = [] }: { decisions: readonly Decision[]; withdraw?: readonly string[] },
): Plan {
  return decisions.reduce(withDecision, withdraw.reduce(withoutSubject, plan));
}

/** How a plan differs from another: decisions that it has beside, that it lacks, and that it took otherwise. */
export function planDifference(
  plan: Pick<Plan, 'decisions'>,
  other: Pick<Plan, 'decisions'>,
): {
  added: Decision[];
  missing: Decision[];
  changed: { now: Decision; was: Decision }[];
} {
  const others = new Map(other.decisions.map((d) => [subjectOf(d), d]));
  const own = new Set(plan.decisions.map(subjectOf));
  const changed: { now: Decision; was: Decision }[] = [];
  for (const now of plan.decisions) {
    const was = others.get(subjectOf(now));
    if (was && JSON.stringify(was) !== JSON.stringify(now)) changed.push({ now, was });
  }
  return {
    added: plan.decisions.filter((d) => !others.has(subjectOf(d))),
    missing: other.decisions.filter((d) => !own.has(subjectOf(d))),
    changed,
  };
}

/** How a decision reaches production. */
export function shipsBy(decision: Decision): ShipsBy {
  return entryOf(decision).shipsBy;
}

/** A decision in words, for lists, undo and reports. */
export function decisionWords(decision: Decision): string {
  return entryOf(decision).words(decision);
}
