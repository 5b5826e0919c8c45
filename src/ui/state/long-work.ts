'use client';

import type { Remote } from 'comlink';
import { sameApp } from '../../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../../core/amend/types.ts';
import type { Analyst } from '../../worker/analyst.ts';
import { longAnalyst } from '../../worker/client.ts';
import { useWorkbench } from './workbench.ts';

let held: { of: string; amendments: Amendments } | null = null;
let loading: Promise<unknown> = Promise.resolve();

/** The thread is another one: what it held is gone. */
export function forgetLongWork(): void {
  held = null;
}

/**
 * The analyst for what takes long, with the project that is open and its corrections laid over it. Loads it anew only when
 * these have changed since.
 */
export async function longWork(): Promise<Remote<Analyst>> {
  const { project } = useWorkbench.getState();
  if (!project) throw new Error('No project is open.');
  const of = `${project.id} ${project.snapshotId}`;
  const { amendments = NO_AMENDMENTS } = project.amended;
  loading = loading
    .catch(() => {})
    .then(async () => {
      if (held?.of !== of) {
        await longAnalyst().open(`${location.origin}/api/projects/${project.id}/snapshot`);
        held = { of, amendments: NO_AMENDMENTS };
      }
      if (!sameApp(held.amendments, amendments)) await longAnalyst().amend(amendments);
      held = { of, amendments };
    });
  await loading;
  return longAnalyst();
}
