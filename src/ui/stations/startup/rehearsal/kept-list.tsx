'use client';

import type { KeptRehearsal } from '../../../../store/rehearsals.ts';
import { Few } from '../../../parts/few.tsx';
import { time } from '../../../parts/format.ts';
import { forgetRehearsal, useRehearsals } from '../../../state/rehearsals.ts';
import { useWorkbench } from '../../../state/workbench.ts';

const MOST = 30;

/** Rehearsals of the route, the newest first; one of them is looked at. */
export function KeptList({ own, shown }: { own: readonly KeptRehearsal[]; shown: string | null }) {
  if (own.length === 0) return null;
  return (
    <section aria-label="Kept rehearsals" className="mt-5 border-t border-line pt-4">
      <h2 className="mb-1 font-semibold">Kept</h2>
      <ul className="grid gap-0.5">
        <Few rows={own} most={MOST} as="li">
          {(k) => <Kept key={k.id} kept={k} isShown={k.id === shown} />}
        </Few>
      </ul>
    </section>
  );
}

function Kept({ kept, isShown }: { kept: KeptRehearsal; isShown: boolean }) {
  const stale = useStale(kept);
  const { plan, conditions, acts = [], at, interactive } = kept.summary;
  return (
    <li className={`flex items-baseline gap-2 rounded px-1.5 py-0.5 ${isShown ? 'bg-mark' : ''}`}>
      <button
        type="button"
        aria-pressed={isShown}
        onClick={() => useRehearsals.setState({ shown: kept.id })}
        className="min-w-0 flex-1 text-left hover:underline"
      >
        <span className="flex justify-between gap-2">
          <span className="truncate font-medium">{plan}</span>
          <span>{interactive === null ? 'never' : time(interactive)}</span>
        </span>
        <span className="block truncate text-[11px] text-soft">
          {conditions.link.name}, {conditions.device.name}, {whenWords(at)}
          {acts.map((act) => `, then ${act}`)}
          {stale ? `; ${stale}` : ''}
        </span>
      </button>
      <button
        type="button"
        aria-label={`Forget ${plan} of ${whenWords(at)}`}
        className="text-soft underline hover:text-ink"
        onClick={() => void forgetRehearsal(kept.id)}
      >
        forget
      </button>
    </li>
  );
}

/** Why what was rehearsed isn’t what would be rehearsed now; null where it is. */
export function useStale({ snapshotId, summary, decisions }: KeptRehearsal): string | null {
  const project = useWorkbench((s) => s.project);
  if (!project) return null;
  if (snapshotId !== project.snapshotId) return 'the code was read again since';
  if (decisions.length === 0) return null;
  const plan = project.plans.find((p) => p.name === summary.plan);
  if (!plan) return 'its plan is gone';
  return JSON.stringify(plan.decisions) === JSON.stringify(decisions) ? null : 'the plan has changed since';
}

function whenWords(at: string): string {
  return new Date(at).toLocaleString('en', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hour12: false,
  });
}
