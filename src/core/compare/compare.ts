import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { ActionFigures, LandingFigures } from '../vocabulary/measures.ts';
import { actionsOf, PlanFigures } from './figures.ts';

/** All figures of one plan: every landing and action, under each of several conditions, in their order. */
export interface PlanTable {
  landings: { route: string; figures: LandingFigures[] }[];
  actions: { route: string; part: string; name: string; figures: (ActionFigures | null)[] }[];
}

/** Every landing and action of a plan under each of several conditions. Times in ms, sizes in bytes. */
export function planTable(app: Snapshot, plan: Plan, conditions: readonly Conditions[]): PlanTable {
  const of = new PlanFigures(app, plan);
  return {
    landings: app.routes.map(({ pattern }) => ({
      route: pattern,
      figures: conditions.map((under) => of.landing(pattern, under)),
    })),
    actions: app.routes.flatMap(({ pattern }) =>
      actionsOf(app, pattern).map(({ id, name }) => ({
        route: pattern,
        part: id,
        name,
        figures: conditions.map((under) => of.action(pattern, id, under)),
      })),
    ),
  };
}
