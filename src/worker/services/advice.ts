import { type BreakEven, type BreakEvenOver, breakEven } from '../../core/advise/break-even.ts';
import { effectOf } from '../../core/advise/effect.ts';
import type { Effect, Remedy, Score } from '../../core/advise/types.ts';
import { type CrowdGains, gainsOver } from '../../core/choose/gains-over.ts';
import type { HintRow } from '../../core/choose/hint-table.ts';
import type { Ahead, Circumstance, MeasuredShares, Wanted } from '../../core/choose/types.ts';
import { planWith } from '../../core/plan/decisions.ts';
import { type Plan } from '../../core/plan/types.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { modelOf } from '../../core/visitors/model.ts';
import { Adviser, type AdviseStep, type ChooseStep, type Help } from './adviser.ts';
import { HeldApp } from './held-app.ts';
import { Measurer } from './measurer.ts';

/** What the Advice station asks: advice, choices, what single hints gain; in steps, and in parts for others who help. */
export class AdviceService {
  private readonly adviser = new Adviser();
  private readonly measurer = new Measurer();

  constructor(private readonly app: HeldApp) {
    app.onChange(() => {
      this.adviser.forget();
      this.measurer.forget();
    });
  }

  /** Changes chosen together, a little further with every call; `begin` starts afresh. */
  choose(
    plan: Plan,
    circumstances: Circumstance[],
    wanted: Wanted,
    begin: boolean,
    help?: Help<MeasuredShares>,
  ): ChooseStep {
    return this.adviser.choose(this.app.get(), plan, circumstances, wanted, begin, help);
  }

  /** A part of a choice that another analyst makes; `run` names it. */
  helpChoose(wanted: Wanted, ahead: Ahead, run: string): MeasuredShares {
    return this.measurer.shares(this.app.get(), wanted, ahead, run);
  }

  /** Every hint that a plan has or could have, a little further with every call; null until all are measured. */
  hints(plan: Plan, conditions: Conditions): { done: number; of: number; rows: HintRow[] | null } {
    return this.adviser.hints(this.app.get(), plan, conditions);
  }

  /** What a change does to all landings and waits. */
  effect(plan: Plan, remedy: Remedy, conditions: Conditions): Effect {
    const run = `effects ${JSON.stringify(conditions)}`;
    const [before, after] = this.measurer.scores(this.app.get(), [plan, planWith(plan, remedy)], conditions, run);
    return effectOf(before, after);
  }

  /** What a change saves by the share of use, the hesitation or the rate of the link. */
  breakEven(plan: Plan, remedy: Remedy, conditions: Conditions, over: BreakEvenOver): BreakEven | null {
    return breakEven(this.app.get(), plan, remedy, modelOf(this.app.get()).model, conditions, over);
  }

  /** What a change saves the visitors of each of several sets of conditions. */
  gainOver(plan: Plan, remedy: Remedy, crowds: Circumstance[]): CrowdGains {
    return gainsOver(this.app.get(), plan, [remedy], modelOf(this.app.get()).model, crowds)[0];
  }

  /** Measured advice for a plan, a little further with every call; null until it is there. `known`: see Adviser. */
  advise(plan: Plan, conditions: Conditions, known: number, help?: Help<(Score | undefined)[]>): AdviseStep {
    return this.adviser.step(this.app.get(), plan, conditions, known, help);
  }

  /** A part of the advice that another analyst works out; `run` names it. */
  helpAdvise(plans: Plan[], conditions: Conditions, run: string): Score[] {
    return this.measurer.scores(this.app.get(), plans, conditions, run);
  }
}
