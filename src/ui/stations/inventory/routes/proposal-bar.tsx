'use client';

import { useAmendments } from '../../../state/amendments.ts';
import { useWorkbench } from '../../../state/workbench.ts';

/** Says that what was read is a proposal until somebody has looked through it, and what of the corrections no longer fits. */
export function ProposalBar() {
  const amendments = useAmendments();
  const app = useWorkbench((s) => s.app);
  const amend = useWorkbench((s) => s.amend);
  if (!app) return null;
  const parts = app.routes.reduce((sum, r) => sum + r.parts.length, 0);
  return (
    <>
      {amendments.confirmed ? null : (
        <div className="flex items-center justify-between gap-4 border-b border-line bg-mark px-4 py-2">
          <p>
            <strong className="font-semibold">A proposal, read from the code:</strong> {app.routes.length}{' '}
            {app.routes.length === 1 ? 'route' : 'routes'} and {parts} {parts === 1 ? 'part' : 'parts'} with their
            places. Whether something lies below the first screen can’t be read off code; say so here.
          </p>
          <button
            type="button"
            onClick={() => amend({ ...amendments, confirmed: true }, 'confirm routes and parts')}
            className="shrink-0 rounded bg-ink px-3 py-1 font-medium text-on-ink"
          >
            It is right so
          </button>
        </div>
      )}
      {app.stale.length > 0 ? (
        <div role="status" className="border-b border-line px-4 py-2 text-worse">
          {app.stale.map((s) => (
            <p key={`${s.at} ${s.reason}`}>
              A correction to {s.at.replace(/^\S+ /, '')} is left aside: {s.reason}.
            </p>
          ))}
        </div>
      ) : null}
    </>
  );
}
