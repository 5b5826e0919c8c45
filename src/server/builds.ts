import { amend } from '../core/amend/amend.ts';
import { DECISION_LIST } from '../core/plan/types.ts';
import { BuiltFiles } from '../core/reconcile/built-files.ts';
import { reconcile } from '../core/reconcile/reconcile.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from '../store/database.ts';
import { amendmentsOf, findProject } from '../store/projects.ts';
import type { BuildInput } from './inputs.ts';
import { noProject, snapshotBody } from './projects.ts';
import { absoluteFolder, howToRead } from './reading.ts';
import { type ReadingState, startComparing } from './reading-jobs.ts';

/**
 * Starts reading a production build and lays it beside what a plan promised. Nothing of it is kept: the answer is in the
 * state of the reading, with the built file of each module for addresses.
 */
export function startReadingBuild(store: () => Store, projectId: string, input: BuildInput): ReadingState {
  if (!findProject(store(), projectId)) throw noProject();
  const plan = { name: input.name, description: '', decisions: DECISION_LIST.check(input.decisions, 'decisions') };
  const folder = absoluteFolder(input.folder);
  return startComparing(folder, howToRead({ as: 'output' }), (built) => {
    const snapshot = JSON.parse(snapshotBody(store(), projectId).toString()) as Snapshot;
    const app = amend(snapshot, amendmentsOf(store(), projectId)!.amendments).snapshot;
    return { reconciled: reconcile(app, plan, built), files: new BuiltFiles(built).map() };
  });
}
