import { slackOf } from '../../core/explain/slack.ts';
import type { EffectivePlan } from '../../core/plan/effective.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { type Calibration, calibrate } from '../../core/recordings/calibrate.ts';
import { readHar } from '../../core/recordings/read-har.ts';
import type { Recording } from '../../core/recordings/types.ts';
import { troublesOf } from '../../core/ship/shipped.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { parseJson } from '../../core/text/json.ts';
import type { ChunkContents, LandingView, MixResult, MixWish } from '../views.ts';
import { HeldApp } from './held-app.ts';
import { MixService } from './mix.ts';
import { Predictions } from './predictions.ts';

/** A landing with what stands behind it, and the decisions of its plan that don't apply or take more than detaching. */
export interface LandingAnswer {
  now: LandingView;
  ghost: LandingView;
  stale: EffectivePlan['stale'];
  blocked: EffectivePlan['blocked'];
}

/** What the Startup station and the live strip ask: landings, mixes of visitors, recordings. */
export class StartupService {
  constructor(
    private readonly app: HeldApp,
    private readonly predictions: Predictions,
    private readonly mixes: MixService,
  ) {}

  /** A landing under a plan, with another plan's (the baseline's) behind it, and the decisions that no longer apply. */
  landing(plan: Plan, route: string, conditions: Conditions, behind: Plan = BASELINE): LandingAnswer {
    const ghost = this.predictions.view(behind, route, conditions);
    const same = plan.decisions.length === 0 && behind.decisions.length === 0;
    return {
      now: same ? ghost : this.predictions.view(plan, route, conditions),
      ghost,
      ...troublesOf(this.app.get(), plan),
    };
  }

  /**
   * Landings of a plan and of the baseline over a mix of visitors, drawn from one seed. Done in steps, `from` the visits
   * that are there already, so that other questions are answered in between; the last step has `drawn` = all.
   */
  mix(plan: Plan, route: string, wish: MixWish, from: number): MixResult {
    return this.mixes.besideBaseline(plan, route, wish, from);
  }

  /** A recorded load, read off an HTTP Archive. */
  readRecording(text: string, fileName: string): Recording {
    return readHar(parseJson(text, fileName), fileName);
  }

  /** What a recorded load event says about the cost of evaluating script. */
  calibrate(plan: Plan, route: string, conditions: Conditions, load: number): Calibration {
    return calibrate(this.predictions.predicted(plan, route, conditions).program, conditions, load);
  }

  /** All modules that a file of the landing holds, the heaviest first. */
  modulesOf(plan: Plan, route: string, conditions: Conditions, address: string): ChunkContents['modules'] {
    return this.predictions.modulesOf(plan, route, conditions, address);
  }

  /** How much later a request's answer could begin without moving the interactive moment, in ms. */
  slack(plan: Plan, route: string, conditions: Conditions, address: string): number | null {
    const { program } = this.predictions.predicted(plan, route, conditions);
    const resource = program.resources.findIndex((r) => r.address === address);
    return resource < 0 ? null : slackOf(program, conditions, resource);
  }
}
