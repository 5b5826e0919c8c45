import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { reportText } from './report.ts';
import { csvText, routeChanges } from './tables.ts';
import type { Artefact, RehearsedLanding } from './types.ts';

/**
 * What a review gets of a plan: every landing is predicted as built and with the plan, which takes a while where there are
 * many routes; so it is apart from what ships. `rehearsed`: what a browser was seen to do, of the landings of which that is known.
 */
export function review(
  app: Snapshot,
  plan: Plan,
  conditions: Conditions,
  rehearsed: readonly RehearsedLanding[] = [],
): Artefact[] {
  const changes = routeChanges(app, plan, conditions);
  return [
    {
      kind: 'csv',
      name: 'Figures',
      use: 'Every landing as built and with the plan, for table programs.',
      file: 'figures.csv',
      mime: 'text/csv',
      text: csvText(changes, rehearsed),
    },
    {
      kind: 'report',
      name: 'Report',
      use: 'For a review: decisions, conditions, before and after; Markdown.',
      file: 'report.md',
      mime: 'text/markdown',
      text: reportText(app, plan, conditions, changes, rehearsed),
    },
  ];
}
