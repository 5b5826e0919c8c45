'use client';

import { useRef } from 'react';
import { sameApp } from '../../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../../core/amend/types.ts';
import { alone } from '../../worker/client.ts';
import { useWork } from './work.ts';
import { telling } from './workbench/notices.ts';
import { useWorkbench } from './workbench.ts';

/** What the person corrected on what was read. */
export function useAmendments(): Amendments {
  return useWorkbench((s) => s.project?.amended.amendments) ?? NO_AMENDMENTS;
}

/** Keeps the worker's snapshot in step with the corrections; a route that is gone or renamed is let go of. */
export function useAmendmentUpdates(): void {
  const projectId = useWorkbench((s) => s.project?.id);
  const snapshotId = useWorkbench((s) => s.project?.snapshotId);
  const amendments = useAmendments();
  const applied = useRef<{ key: string; amendments: Amendments } | null>(null);
  useWork(
    async (wanted) => {
      const key = `${projectId} ${snapshotId}`;
      const opened = applied.current?.key !== key;
      if (!opened && applied.current?.amendments === amendments) return;
      const before = applied.current?.amendments;
      applied.current = { key, amendments };
      if (!opened && before && sameApp(before, amendments)) return;
      // A project comes with its corrections laid over it already.
      if (opened) return;
      await alone(async (worker) => {
        const app = await worker.amend(amendments);
        if (!wanted()) return;
        const { route } = useWorkbench.getState();
        const kept = app.routes.some((r) => r.pattern === route);
        const next = app.routes[0]?.pattern ?? '';
        const words = next
          ? `There is no route ${route} any more; ${next} is shown.`
          : `There is no route ${route} any more.`;
        useWorkbench.setState({
          app,
          ...(kept ? {} : { route: next, ...(route ? telling(useWorkbench.getState(), words) : {}) }),
        });
      });
    },
    (error) => useWorkbench.setState((s) => telling(s, `The correction could not be laid over: ${error.message}`)),
    [projectId, snapshotId, amendments],
  );
}
