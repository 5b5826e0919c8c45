import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { asRehearsed } from '../../core/rehearsals/as-rehearsed.ts';
import { conditionsAsRun } from '../../core/rehearsals/conditions-as-run.ts';
import { type Difference, differencesOf } from '../../core/rehearsals/differences.ts';
import { learnt } from '../../core/rehearsals/learn.ts';
import { middleRun } from '../../core/rehearsals/middle-run.ts';
import { predictedOf } from '../../core/rehearsals/predicted.ts';
import { type Beside, type Gain, gainsOf, quantitiesBeside } from '../../core/rehearsals/quantities.ts';
import type { Rehearsal, RehearsedRun } from '../../core/rehearsals/types.ts';
import { leftOutWords, slowedWords } from '../../core/rehearsals/words.ts';
import type { Measured } from '../../core/snapshot/measured-types.ts';
import type { LandingView } from '../views.ts';
import { HeldApp } from './held-app.ts';
import { Predictions } from './predictions.ts';

/** A rehearsal beside what is predicted of it now. */
export interface RehearsedView {
  view: LandingView;
  quantities: Beside[];
  differences: Difference[];
  /** What the plan gains over the one that it is laid against. */
  gains: Gain[] | null;
  /** The run in the middle. */
  run: RehearsedRun;
  /** By how much the thread was slowed otherwise than meant; empty where it wasn’t. */
  slowed: string;
  /** What of the plan wasn’t run. */
  leftOut: string[];
}

/** A plan with the rehearsal that was made of it. */
export interface Made {
  plan: Plan;
  rehearsal: Rehearsal;
}

/** What the interface asks about rehearsals. */
export class RehearsedService {
  constructor(
    private readonly app: HeldApp,
    private readonly predictions: Predictions,
  ) {}

  /** A rehearsal beside its prediction; `against`: that of another plan, to tell what the one gains. */
  beside(made: Made, against: Made | null): RehearsedView {
    const { plan, rehearsal } = made;
    const [as, conditions] = [asRehearsed(plan, rehearsal), conditionsAsRun(rehearsal)];
    const { timeline, program } = this.predictions.predicted(as, rehearsal.pattern, conditions);
    const quantities = this.quantities(made);
    return {
      view: this.predictions.view(as, rehearsal.pattern, conditions),
      quantities,
      differences: differencesOf({ timeline, program }, rehearsal),
      gains: against && gainsOf(this.quantities(against), quantities),
      run: middleRun(rehearsal),
      slowed: slowedWords(rehearsal),
      leftOut: leftOutWords(plan, rehearsal),
    };
  }

  /** What rehearsals say of the app, beside what was known. */
  learnt(rehearsals: Rehearsal[], before: Measured | null): Measured {
    return learnt(this.app.get(), rehearsals, before);
  }

  private quantities({ plan, rehearsal }: Made): Beside[] {
    const as = plan === BASELINE ? plan : asRehearsed(plan, rehearsal);
    const conditions = conditionsAsRun(rehearsal);
    const made = this.predictions.predicted(as, rehearsal.pattern, conditions);
    return quantitiesBeside(predictedOf(this.app.shipped(as), as, rehearsal, conditions, made), rehearsal);
  }
}
