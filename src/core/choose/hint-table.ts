import { Compilations } from '../advise/compiled.ts';
import { AnalysisContext } from '../advise/detect/analysis-context.ts';
import { effectOf } from '../advise/effect.ts';
import { Scorer } from '../advise/score.ts';
import type { Effect } from '../advise/types.ts';
import { planWith, subjectOf, withoutSubject } from '../plan/decisions.ts';
import { hintWords } from '../plan/hints.ts';
import type { Plan } from '../plan/types.ts';
import { shipped, troublesOf } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Hint } from '../vocabulary/hints.ts';
import { hintCandidates } from './hint-candidates.ts';

/** One hint that the plan has, or that could make sense, with what it does as the plan is. */
export interface HintRow {
  /** The subject of its decision. */
  id: string;
  hint: Hint;
  words: string;
  why: string;
  /** Whether the plan has it. */
  on: boolean;
  /** Rows with the same one are ways of giving one hint. */
  instead: string;
  /** What it saves a visit, in expected ms; less than nothing where it harms. */
  gain: number;
  /** What it makes a visit fetch for nothing, in expected bytes. */
  waste: number;
  effect: Effect;
  /** Why it does nothing here, though the plan has it. */
  trouble: string | null;
}

/**
 * Every hint of a plan, and every one that could make sense beside them, each measured by itself: switched on where it is
 * off, and off where it is on. Yields after each; returns the rows, those of one route together.
 */
export function* hintTable(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  conditions: Conditions,
): Generator<{ done: number; of: number }, HintRow[]> {
  const analysis = new AnalysisContext(shipped(app, plan).snapshot, plan, conditions);
  const scorer = new Scorer(app, model, conditions, new Compilations(app, model));
  const now = scorer.score(plan);
  const { stale } = troublesOf(app, plan);
  const own = plan.decisions.flatMap((decision, at) =>
    decision.kind === 'hint'
      ? [{ hint: decision.hint, trouble: stale.find((s) => s.decision === at)?.reason ?? null }]
      : [],
  );
  const offered = hintCandidates(analysis, model);
  const of = own.length + offered.length;
  const rows: HintRow[] = [];
  for (const { hint, trouble } of own) {
    const id = subjectOf({ kind: 'hint', hint });
    const effect = effectOf(scorer.score(withoutSubject(plan, id)), now);
    rows.push({
      ...{ id, hint, words: hintWords(hint), why: 'in the plan', on: true, trouble },
      instead: `${hint.routes.join(' ')} ${JSON.stringify(hint.target)}`,
      ...{ gain: -effect.cost, waste: effect.waste, effect },
    });
    yield { done: rows.length, of };
  }
  for (const { id, words, why, remedy, routes, instead } of offered) {
    const only = routes ? new Set(routes) : undefined;
    const effect = effectOf(only ? scorer.partsOf(now, only) : now, scorer.score(planWith(plan, remedy), only));
    const [decision] = remedy.decisions;
    if (decision.kind !== 'hint') continue;
    rows.push({
      ...{ id, hint: decision.hint, words, why, on: false, instead, trouble: null },
      ...{ gain: -effect.cost, waste: effect.waste, effect },
    });
    yield { done: rows.length, of };
  }
  return rows;
}
