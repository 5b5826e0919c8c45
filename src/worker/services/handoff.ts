import { landingHar } from '../../core/formats/landing-har.ts';
import { type PlanFile, writePlanFile } from '../../core/formats/plan-file.ts';
import type { FileMap } from '../../core/handoff/addresses.ts';
import { type Handoff, handoff } from '../../core/handoff/handoff.ts';
import { review } from '../../core/handoff/review.ts';
import type { Artefact, RehearsedLanding } from '../../core/handoff/types.ts';
import { limitStates, proposeLimits } from '../../core/limits/limits.ts';
import type { Limit, LimitState } from '../../core/limits/types.ts';
import { type Plan } from '../../core/plan/types.ts';
import { troublesOf } from '../../core/ship/shipped.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { HeldApp } from './held-app.ts';
import { Predictions } from './predictions.ts';

/** What the Handoff station asks: what a plan gives away, and limits. */
export class HandoffService {
  constructor(
    private readonly app: HeldApp,
    private readonly predictions: Predictions,
  ) {}

  /** How limits stand under a plan. */
  limits(plan: Plan, limits: Limit[]): LimitState[] {
    return limitStates(this.app.get(), limits, [], plan);
  }

  /** Limits that a plan keeps at present, with some slack. */
  proposeLimits(plan: Plan, conditions: Conditions, slack: number): Limit[] {
    return proposeLimits(this.app.get(), plan, conditions, slack);
  }

  /** What a plan gives to the app and its server. */
  handoff(plan: Plan, files: FileMap | null): Handoff {
    return handoff(this.app.get(), plan, files);
  }

  /** What a review gets of a plan. */
  review(plan: Plan, conditions: Conditions, rehearsed: RehearsedLanding[]): Artefact[] {
    return review(this.app.get(), plan, conditions, rehearsed);
  }

  /** A plan by itself, as a file to send. */
  planFile(plan: Plan): string {
    return writePlanFile(this.app.get(), plan);
  }

  /** Which decisions of a plan that was sent don't apply here, and whether it was made for this app as it is. */
  fits(plan: Plan, { name, modules, imports }: PlanFile['app']): { stale: string[]; same: boolean } {
    const app = this.app.get();
    const same = app.name === name && app.modules.length === modules && app.imports.length === imports;
    return { stale: troublesOf(app, plan).stale.map((s) => s.reason), same };
  }

  /** The predicted landing as an HTTP Archive. */
  har(plan: Plan, route: string, conditions: Conditions, startedAt: string): string {
    return landingHar(
      this.app.get().name,
      route,
      this.predictions.predicted(plan, route, conditions),
      conditions,
      startedAt,
    );
  }
}
