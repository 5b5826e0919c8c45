import type { LoadProgram } from '../../core/load/types.ts';
import { type Drawn, drawConditions, landUnder, type Mix } from '../../core/mix/mix.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../../core/sim/conditions.ts';
import type { MixResult, MixWish } from '../views.ts';

/** The same visits every time, so that plans are compared by what they do, not by who happened to come. */
const MIX_SEED = 20_261;
const MIX_STEP_MS = 40;

/** Landings over a mix of visitors, a little further with every call. */
export class MixService {
  private drawing: { key: string; conditions: Conditions[]; plans: Drawn[][]; programs: LoadProgram[] } | null = null;

  constructor(private readonly programOf: (plan: Plan, route: string) => LoadProgram) {}

  /** Landings of a plan and of the baseline. */
  besideBaseline(plan: Plan, route: string, wish: MixWish, from: number): MixResult {
    const { plans, drawn } = this.several([plan, BASELINE], route, wish, from);
    return { plan: plans[0], baseline: plans[1], drawn };
  }

  /**
   * Landings of several plans, drawn from one seed; `from`: the visits that are there already. The last step has
   * `drawn` = all.
   */
  several(plans: readonly Plan[], route: string, wish: MixWish, from: number): { plans: Drawn[][]; drawn: number } {
    const key = JSON.stringify([plans.map((p) => p.decisions), route, wish]);
    if (this.drawing?.key !== key || from === 0)
      this.drawing = {
        key,
        conditions: drawConditions(mixOf(wish), wish.visits, MIX_SEED),
        plans: plans.map(() => []),
        programs: plans.map((p) => this.programOf(p, route)),
      };
    const { conditions, plans: drawn, programs } = this.drawing;
    const until = performance.now() + MIX_STEP_MS;
    for (let i = drawn[0].length; i < conditions.length && performance.now() < until; i++)
      programs.forEach((program, at) => {
        const twin = programs.indexOf(program);
        drawn[at].push(twin < at ? drawn[twin][i] : landUnder(program, conditions[i]));
      });
    return { plans: drawn, drawn: drawn[0].length };
  }
}

function mixOf(wish: MixWish): Mix {
  return {
    links: LINKS.map((link) => ({ link, weight: wish.links[link.id] ?? 0 })),
    devices: DEVICES.map((device) => ({ device, weight: wish.devices[device.id] ?? 0 })),
    returning: wish.returning,
    spread: wish.spread,
  };
}
