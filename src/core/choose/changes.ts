import { subjectOf } from '../plan/decisions.ts';
import type { Decision } from '../plan/types.ts';
import type { Candidate, Limits } from './types.ts';

/**
 * What candidates change in a plan when they are taken together: decisions that are made and the subjects of those that are withdrawn. Ways to
 * split come before hints, which may aim at what these make; a later candidate has the last word about a subject.
 */
export function changesOf(
  candidates: readonly Candidate[],
  limits: Pick<Limits, 'spareDataSavers'>,
): { decisions: Decision[]; withdraw: string[] } {
  const inOrder = [...candidates.filter((c) => c.about === 'split'), ...candidates.filter((c) => c.about === 'hint')];
  const made = new Map<string, Decision>();
  const withdrawn = new Set<string>();
  for (const { remedy } of inOrder) {
    for (const subject of remedy.withdraw ?? []) {
      made.delete(subject);
      withdrawn.add(subject);
    }
    for (const decision of remedy.decisions) made.set(subjectOf(decision), spared(decision, limits));
  }
  return { decisions: [...made.values()], withdraw: [...withdrawn] };
}

/** What the start needs anyway wastes nobody's data; what is fetched in case may. */
function spared(decision: Decision, limits: Pick<Limits, 'spareDataSavers'>): Decision {
  if (!limits.spareDataSavers || decision.kind !== 'hint') return decision;
  if (decision.hint.kind !== 'prefetch' && decision.hint.place !== 'script') return decision;
  return { ...decision, hint: { ...decision.hint, notForDataSaver: true } };
}
