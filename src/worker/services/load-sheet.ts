import { type LoadSheet, loadSheet, sheetDifference } from '../../core/load-sheet/sheet.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { HeldApp } from './held-app.ts';

/** What the Load sheet asks. */
export class LoadSheetService {
  constructor(private readonly app: HeldApp) {}

  /** What arrives for each moment, and in which of it the plan differs from the baseline. */
  loadSheet(plan: Plan, conditions: Conditions): { sheet: LoadSheet; changed: { rows: string[]; columns: string[] } } {
    const sheet = loadSheet(this.app.shipped(plan), plan, conditions);
    if (plan.decisions.length === 0) return { sheet, changed: { rows: [], columns: [] } };
    const { rows, columns } = sheetDifference(sheet, loadSheet(this.app.get(), BASELINE, conditions));
    return { sheet, changed: { rows: [...rows], columns: [...columns] } };
  }
}
