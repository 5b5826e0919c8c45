import { subjectOf } from '../../plan/decisions.ts';
import { linkKey } from '../../plan/effective.ts';
import { hintWords } from '../../plan/hints.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Hints of the plan: each is tried without. */
export function costlyHints({ snapshot, plan }: AnalysisContext): CandidateFinding[] {
  return plan.decisions.flatMap((decision): CandidateFinding[] => {
    if (decision.kind !== 'hint') return [];
    const subject = subjectOf(decision);
    const { hint } = decision;
    return [
      {
        id: subject,
        kind: 'hint that costs',
        what: `${hintWords(hint)} doesn’t pay`,
        why: 'Without it the same visits wait less, or fetch less for nothing.',
        evidence: [],
        routes: hint.routes.length > 0 ? hint.routes : snapshot.routes.map((r) => r.pattern),
        remedies: [{ words: 'take it back', decisions: [], withdraw: [subject] }],
      },
    ];
  });
}

/** Links that the documents carry by themselves: each is tried without. */
export function costlyLinks({ snapshot, starts }: AnalysisContext): CandidateFinding[] {
  const links = new Map(snapshot.links.map((l) => [linkKey(l), l]));
  return [...links].flatMap(([key, link]): CandidateFinding[] => {
    if (starts.plan.dropped.has(key)) return [];
    const { rel, address, evidence, realm } = link;
    return [
      {
        id: `link ${key}`,
        kind: 'hint that costs',
        what: `the ${rel} of ${address} doesn’t pay`,
        why: 'It is unused, comes too late to help, or delays something that matters more: without it visits wait less.',
        evidence: [{ from: evidence.path, to: address, line: evidence.line }],
        routes: snapshot.routes.filter((r) => r.realm === realm).map((r) => r.pattern),
        remedies: [{ words: 'leave it out', decisions: [{ kind: 'drop link', rel, address }] }],
      },
    ];
  });
}

/** Hints of the plan that fetch in case, for people who asked to save data. */
export function hintsForSavers({ snapshot, plan }: AnalysisContext): CandidateFinding[] {
  return plan.decisions.flatMap((decision): CandidateFinding[] => {
    if (decision.kind !== 'hint' || decision.hint.kind !== 'prefetch' || decision.hint.notForDataSaver) return [];
    const { hint } = decision;
    return [
      {
        id: `savers ${subjectOf(decision)}`,
        kind: 'hint that costs',
        what: `${hintWords(hint)} wastes the data of people who save it`,
        why: 'They asked their browser to fetch nothing in case.',
        evidence: [],
        routes: hint.routes.length > 0 ? hint.routes : snapshot.routes.map((r) => r.pattern),
        remedies: [
          {
            words: 'leave it out for data savers',
            decisions: [{ kind: 'hint', hint: { ...hint, notForDataSaver: true } }],
          },
        ],
        whose: 'data savers',
      },
    ];
  });
}
