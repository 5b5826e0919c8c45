import { type PlanTable, planTable } from '../../core/compare/compare.ts';
import { type EarnedTable, earnedBy } from '../../core/compare/earned.ts';
import type { Drawn } from '../../core/mix/mix.ts';
import { type Plan } from '../../core/plan/types.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { keep } from '../stepping.ts';
import type { MixWish } from '../views.ts';
import { HeldApp } from './held-app.ts';
import { MixService } from './mix.ts';

const MOST_TABLES = 8;

/** What the Compare station asks: several plans beside each other, and what each decision earned. */
export class CompareService {
  /** The last compared plans: only the one that is changed is worked out again. */
  private readonly tables = new Map<string, PlanTable>();

  constructor(
    private readonly app: HeldApp,
    private readonly mixes: MixService,
  ) {
    app.onChange(() => this.tables.clear());
  }

  /** The same over several plans. */
  mixOver(plans: Plan[], route: string, wish: MixWish, from: number): { plans: Drawn[][]; drawn: number } {
    return this.mixes.several(plans, route, wish, from);
  }

  /** Every landing and action of a plan under several conditions. */
  table(plan: Plan, conditions: Conditions[]): PlanTable {
    const key = JSON.stringify([plan.decisions, conditions]);
    const table = this.tables.get(key) ?? planTable(this.app.get(), plan, conditions);
    return keep(this.tables, key, table, MOST_TABLES);
  }

  /** Which decision of a plan earned what on a landing. */
  earned(plan: Plan, route: string, conditions: Conditions): EarnedTable {
    return earnedBy(this.app.get(), plan, route, conditions);
  }
}
