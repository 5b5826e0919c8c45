import type { Chunk } from '../../chunks/types.ts';
import { decisionWords, subjectOf } from '../../plan/decisions.ts';
import { matcher } from '../../plan/match.ts';
import type { Decision } from '../../plan/types.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/**
 * Decisions of the plan beside cuts and hints, each of which is tried without: what they were made for may have changed
 * since. Cuts and hints have findings of their own; what is about being seen isn't for saving time.
 */
const TRIED = [
  ...(['trigger', 'script', 'loader', 'style in script', 'move'] as const),
  ...(['gather', 'together', 'apart', 'floor', 'ceiling', 'grain'] as const),
] satisfies readonly Decision['kind'][];

/** Decisions of the plan that may cost more than they give: each is measured without. */
export function costlyDecisions(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, plan } = analysis;
  return plan.decisions.flatMap((decision): CandidateFinding[] => {
    if (!(TRIED as readonly string[]).includes(decision.kind)) return [];
    const subject = subjectOf(decision);
    const beside = companions(analysis, decision);
    return [
      {
        id: `own ${subject}`,
        kind: 'decision that costs',
        what: `“${decisionWords(decision)}” doesn’t pay`,
        why:
          beside.length > 0
            ? `${beside.join('; ')}. Without the decision the same visits wait less.`
            : 'Without this decision of the plan the same visits wait less.',
        evidence: [],
        routes: snapshot.routes.map((r) => r.pattern),
        remedies: [{ words: 'take it back', decisions: [], withdraw: [subject] }],
        // What is kept apart is kept for them.
        whose: 'returning after a deploy',
      },
    ];
  });
}

/** Of the files that a decision makes: those that always travel with another, in words. */
function companions({ snapshot, starts }: AnalysisContext, decision: Decision): string[] {
  const meant = membersOf(decision);
  if (!meant) return [];
  const { chunks } = starts.graph;
  const made = (c: Chunk) => c.modules.length > 0 && c.modules.every((m) => meant(snapshot.modules[m]));
  const key = (c: Chunk) => `${c.realm} ${c.kind} ${c.roots.join()}`;
  return chunks.filter(made).flatMap((chunk) => {
    const other = chunks.find((c) => c !== chunk && key(c) === key(chunk));
    return other ? [`${chunk.name} and ${other.name} always travel together`] : [];
  });
}

function membersOf(decision: Decision): ((module: { path: string; package: string | null }) => boolean) | null {
  if (decision.kind === 'gather' || decision.kind === 'apart') return matcher(decision.match);
  if (decision.kind !== 'together') return null;
  const modules = new Set(decision.modules);
  return (m) => modules.has(m.path);
}
