import { Scorer } from '../../core/advise/score.ts';
import type { Score } from '../../core/advise/types.ts';
import { SetEvaluator } from '../../core/choose/set-evaluator.ts';
import type { Ahead, MeasuredShares, Wanted } from '../../core/choose/types.ts';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { modelOf } from '../../core/visitors/model.ts';

/** Does a part of somebody else's work, and keeps what the next part of the same work can use. */
export class Measurer {
  private scoring: { run: string; scorer: Scorer } | null = null;
  private evaluating: { run: string; of: string; evaluator: SetEvaluator } | null = null;

  forget(): void {
    this.scoring = null;
    this.evaluating = null;
  }

  /** Scores of plans, in their order; `run` names the work that they belong to. */
  scores(app: Snapshot, plans: readonly Plan[], conditions: Conditions, run: string): Score[] {
    if (this.scoring?.run !== run) this.scoring = { run, scorer: new Scorer(app, modelOf(app).model, conditions) };
    const { scorer } = this.scoring;
    return plans.map((plan) => scorer.score(plan));
  }

  /** What sets of candidates come to. */
  shares(app: Snapshot, wanted: Wanted, { plan, circumstances, candidates, sets }: Ahead, run: string): MeasuredShares {
    const of = JSON.stringify([plan.decisions, candidates.map((c) => c.id)]);
    if (this.evaluating?.run !== run || this.evaluating.of !== of)
      this.evaluating = {
        run,
        of,
        evaluator: new SetEvaluator(app, plan, modelOf(app).model, circumstances, candidates, wanted),
      };
    return this.evaluating.evaluator.sharesOf(sets);
  }
}
