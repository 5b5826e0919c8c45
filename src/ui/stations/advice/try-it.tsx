'use client';

import type { Remedy } from '../../../core/advise/types.ts';
import { endTrial, tryOut, useTrial } from '../../state/trial.ts';
import { usePlan } from '../../state/workbench.ts';

/** Shows a change on the live strip and the waterfall, over the plan as it is, without making it. */
export function TryIt({ remedy, words = 'Preview' }: { remedy: Remedy; words?: string }) {
  const plan = usePlan();
  const trial = useTrial();
  const on = trial !== null && JSON.stringify(trial.remedy) === JSON.stringify(remedy);
  return (
    <button
      type="button"
      aria-pressed={on}
      title="Shows it on the live strip and in Startup, without changing the plan"
      onClick={() => (on ? endTrial() : tryOut(remedy, plan))}
      className={`rounded border px-2.5 py-1.5 ${on ? 'border-ink bg-mark' : 'border-line hover:border-ink'}`}
    >
      {words}
    </button>
  );
}
