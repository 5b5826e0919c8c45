import { advise } from '../../core/advise/advise.ts';
import type { Advice, AdviceProgress, Score } from '../../core/advise/types.ts';
import { choose } from '../../core/choose/choose.ts';
import { type HintRow, hintTable } from '../../core/choose/hint-table.ts';
import type { Ahead, Choice, ChoiceProgress, Circumstance, MeasuredShares, Wanted } from '../../core/choose/types.ts';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { modelOf } from '../../core/visitors/model.ts';
import { keep, stepFor } from '../stepping.ts';

/** One call works about so long, so that other questions are answered in between. */
const STEP_MS = 25;
const MOST_KNOWN = 6;

/** How far a choice is: what was taken so far, and all of it once it is made. */
export interface ChooseStep extends ChoiceProgress {
  choice: Choice | null;
  /** Sets that are measured next. */
  ahead?: Ahead;
}

/** How far advice is, with what helps so far where who asks doesn't know it yet; `ahead`: plans that are scored next. */
export interface AdviseStep extends AdviceProgress {
  advice: Advice | null;
  ahead?: Plan[];
}

/** What others found meanwhile; where nobody helps there is none. */
export interface Help<F> {
  given?: F;
}

/** Works out advice in steps, and remembers the last ones. */
export class Adviser {
  private readonly cache = new Map<string, Advice>();
  private readonly tables = new Map<string, HintRow[]>();
  private tabling: { key: string; steps: ReturnType<typeof hintTable> } | null = null;
  private choosing: ReturnType<typeof choose> | null = null;
  private running: { key: string; steps: ReturnType<typeof advise> } | null = null;

  forget(): void {
    this.cache.clear();
    this.running = null;
    this.choosing = null;
    this.tables.clear();
    this.tabling = null;
  }

  /** `known`: of how many findings who asks knows already. */
  step(
    app: Snapshot,
    plan: Plan,
    conditions: Conditions,
    known: number,
    help?: Help<(Score | undefined)[]>,
  ): AdviseStep {
    // What was put aside changes nothing that is measured.
    const decisions = plan.decisions.filter((d) => d.kind !== 'put aside');
    const key = JSON.stringify([decisions, conditions]);
    const cached = this.cache.get(key);
    if (cached) return { done: 1, of: 1, advice: cached };
    if (this.running?.key !== key)
      this.running = { key, steps: advise(app, { ...plan, decisions }, modelOf(app).model, conditions) };
    const step = stepFor(this.running.steps, STEP_MS, help !== undefined, help?.given);
    if (!step.over) {
      const { soFar = [] } = step.progress;
      return { ...sent(step.progress, help), soFar: soFar.length === known ? undefined : soFar, advice: null };
    }
    this.running = null;
    return { done: 1, of: 1, advice: keep(this.cache, key, step.result, MOST_KNOWN) };
  }

  choose(
    app: Snapshot,
    plan: Plan,
    circumstances: Circumstance[],
    wanted: Wanted,
    begin: boolean,
    help?: Help<MeasuredShares>,
  ): ChooseStep {
    if (begin || !this.choosing) this.choosing = choose(app, plan, modelOf(app).model, circumstances, wanted);
    const step = stepFor(this.choosing, STEP_MS, help !== undefined, help?.given);
    if (!step.over) return { ...sent(step.progress, help), choice: null };
    this.choosing = null;
    return { phase: 'the curve', turns: step.result.turns, done: 1, of: 1, choice: step.result };
  }

  hints(app: Snapshot, plan: Plan, conditions: Conditions): { done: number; of: number; rows: HintRow[] | null } {
    const key = JSON.stringify([plan.decisions, conditions]);
    const cached = this.tables.get(key);
    if (cached) return { done: 1, of: 1, rows: cached };
    if (this.tabling?.key !== key) this.tabling = { key, steps: hintTable(app, plan, modelOf(app).model, conditions) };
    const step = stepFor(this.tabling.steps, STEP_MS);
    if (!step.over) return { ...step.progress, rows: null };
    this.tabling = null;
    return { done: 1, of: 1, rows: keep(this.tables, key, step.result, MOST_KNOWN) };
  }
}

/** What can be shared is only sent to where somebody helps. */
function sent<P extends { ahead?: unknown }>(told: P, help: unknown): P {
  return help === undefined ? { ...told, ahead: undefined } : told;
}
