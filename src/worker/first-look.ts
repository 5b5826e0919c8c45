import { type Amendments } from '../core/amend/types.ts';
import { BASELINE, type Plan } from '../core/plan/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { Analyst } from './analyst.ts';
import { choiceOf, conditionsOf, type Wishes } from './choice.ts';
import type { LandingAnswer } from './services/startup.ts';
import type { AppView } from './views.ts';

/** What a page shows before the thread that works for it holds the app: what is in the app, and the landing that is asked for. */
export interface FirstLook {
  app: AppView;
  /** null where the app has no route. */
  landing: LandingAnswer | null;
}

/** An app that first looks are given of; predictions are kept, so that the second page costs nothing. */
export class FirstLooks {
  private readonly analyst = new Analyst();
  private readonly app: AppView;

  constructor(snapshot: Snapshot, amendments: Amendments) {
    this.analyst.take(snapshot);
    this.app = this.analyst.amend(amendments);
  }

  /** What is shown first by what an address asks for. */
  of(wished: Wishes, plans: readonly (Plan & { id: string })[]): FirstLook {
    const choice = choiceOf(wished, plans, this.app.routes);
    const plan = plans.find((p) => p.id === choice.planId) ?? BASELINE;
    const landing = choice.route === '' ? null : this.analyst.startup.landing(plan, choice.route, conditionsOf(choice));
    return { app: this.app, landing };
  }
}
