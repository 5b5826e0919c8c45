'use client';

import type { Rehearsal } from '../../../../core/rehearsals/types.ts';
import { analyst } from '../../../../worker/client.ts';
import { toast } from '../../../parts/toast.ts';
import { useAmendments } from '../../../state/amendments.ts';
import { useWorkbench } from '../../../state/workbench.ts';

/** Takes what was measured into the predictions, or what was taken out of them again. */
export function TakeMeasured({ rehearsal }: { rehearsal: Rehearsal }) {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const { measured } = amendments;
  const take = async () => {
    try {
      const next = await analyst().rehearsed.learnt([rehearsal], measured ?? null);
      amend({ ...amendments, measured: next }, 'what was measured is taken');
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="max-w-72">
      <button
        type="button"
        className="rounded border border-ink px-2.5 py-0.5 font-medium hover:bg-paper"
        onClick={() => void take()}
      >
        Use these measurements
      </button>
      <p className="mt-1 text-[11px] text-soft">
        What modules take to run, parts to be drawn and the browser for its own work, for all predictions of this app.{' '}
        {measured ? (
          <>
            In use: {measured.by}.{' '}
            <button
              type="button"
              className="underline hover:text-ink"
              onClick={() => amend({ ...amendments, measured: null }, 'what was measured is left out')}
            >
              leave it out again
            </button>
          </>
        ) : null}
      </p>
    </div>
  );
}
