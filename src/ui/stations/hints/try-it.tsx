'use client';

import type { Way } from '../../../core/advise/types.ts';
import { endTrial, tryOut, useTrial } from '../../state/trial.ts';
import { usePlan } from '../../state/workbench.ts';

/** Shows a change on the live strip and the waterfall, over the plan as it is, without making it. */
export function TryIt({ way, words = 'Try it' }: { way: Way; words?: string }) {
  const plan = usePlan();
  const trial = useTrial();
  const on = trial !== null && JSON.stringify(trial.way) === JSON.stringify(way);
  return (
    <button
      type="button"
      aria-pressed={on}
      title="Shows it on the live strip and in Startup, without changing the plan"
      onClick={() => (on ? endTrial() : tryOut(way, plan))}
      className={`rounded border px-2.5 py-1.5 ${on ? 'border-ink bg-mark' : 'border-line hover:border-ink'}`}
    >
      {words}
    </button>
  );
}
