import { candidatesOf } from '../advise/advise.ts';
import type { AnalysisContext } from '../advise/detect/analysis-context.ts';
import type { Remedy } from '../advise/types.ts';
import { decisionWords, planWith, subjectOf } from '../plan/decisions.ts';
import { effectivePlan } from '../plan/effective.ts';
import type { Decision } from '../plan/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { wishesOf } from '../visitors/reckon.ts';
import type { Trigger, TriggerKind } from '../vocabulary/triggers.ts';
import type { Candidate } from './types.ts';

/** Triggers that are tried for any split point, in this order; null: they need more than the split point to be told. */
const TRIED: Record<TriggerKind, Trigger | null> = {
  'at once': { on: 'at once' },
  approach: { on: 'approach' },
  idle: { on: 'idle' },
  visible: { on: 'visible' },
  action: { on: 'action' },
  'after first paint': null,
  after: null,
  media: null,
  answer: null,
  event: null,
};
const TRIGGERS = Object.values(TRIED).filter((t) => t !== null);

/**
 * All ways to split, place and ship code that could make sense under a plan: those of every candidate, and other
 * triggers for the code that people come to want later. What only hints about is left to the hints.
 */
export function splitCandidates(analysis: AnalysisContext, model: VisitorModel): Candidate[] {
  const aside = new Set(analysis.plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [d.finding] : [])));
  const detected = candidatesOf(analysis).flatMap(({ id, remedies, what }) =>
    remedies.flatMap((remedy): Candidate[] => {
      const hints = remedy.decisions.length > 0 && remedy.decisions.every((d) => d.kind === 'hint');
      // What is taken back can't be weighed beside what is added.
      if (hints || remedy.decisions.length === 0 || aside.has(id) || !isSafe(analysis, remedy)) return [];
      const of = `${id} · ${remedy.decisions.map(subjectOf).join(' · ')} · ${remedy.words}`;
      return [
        { id: of, about: 'split', words: remedy.words, why: what, remedy, routes: null, instead: id, together: null },
      ];
    }),
  );
  return [...detected, ...otherTriggers(analysis, model)];
}

/** Whether the code stays as it is but for the decisions: none of them has to be prepared by hand. */
function isSafe({ snapshot, plan, starts }: AnalysisContext, remedy: Remedy): boolean {
  if (!remedy.decisions.some((d) => d.kind === 'detach')) return true;
  return effectivePlan(snapshot, planWith(plan, remedy)).blocked.length <= starts.plan.blocked.length;
}

/** Other moments for what is fetched later. */
function otherTriggers({ starts, snapshot, plan }: AnalysisContext, model: VisitorModel): Candidate[] {
  const wanted = new Map<string, string>();
  for (const { module, name, kind, route } of wishesOf(model).wishes)
    if (!wanted.has(module))
      wanted.set(module, kind === 'move' ? `people move to ${name}` : `people on ${route} want ${name}`);
  const roots = new Set(starts.graph.roots.map((r) => snapshot.modules[r.target[0]]?.path));
  return [...wanted].flatMap(([module, why]) => {
    if (!roots.has(module)) return [];
    const now = plan.decisions.find((d) => d.kind === 'trigger' && d.splitPoint === module);
    return TRIGGERS.flatMap((fetch): Candidate[] => {
      const decision: Decision = { kind: 'trigger', splitPoint: module, fetch };
      if (JSON.stringify(now) === JSON.stringify(decision)) return [];
      return [
        {
          id: `${subjectOf(decision)} ${fetch.on}`,
          about: 'split',
          words: decisionWords(decision),
          why,
          remedy: { words: decisionWords(decision), decisions: [decision] },
          routes: null,
          instead: subjectOf(decision),
          together: null,
        },
      ];
    });
  });
}
