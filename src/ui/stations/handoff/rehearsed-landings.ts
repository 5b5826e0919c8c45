'use client';

import type { RehearsedLanding, SeenTime } from '../../../core/handoff/types.ts';
import { BASELINE, type Plan } from '../../../core/plan/types.ts';
import type { Summed } from '../../../core/rehearsals/summary.ts';
import { spreadWords } from '../../../core/rehearsals/words.ts';
import { useMeasured } from '../../state/rehearsals.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';

/** What was rehearsed of the app’s landings under the open plan and the baseline, as chosen at the top; landings of which nothing is known are left out. */
export function useRehearsedLandings(): RehearsedLanding[] {
  const plan = usePlan();
  const conditions = useConditions();
  const routes = useWorkbench((s) => s.app?.routes) ?? [];
  const measured = useMeasured();
  return routes.flatMap(({ pattern }): RehearsedLanding[] => {
    const seen = (of: Plan, what: Summed): SeenTime | null => {
      const spread = measured(of, pattern, conditions)?.[what];
      return spread ? { ms: spread.median, words: spreadWords(spread) } : null;
    };
    const both = (what: Summed) => ({ before: seen(BASELINE, what), after: seen(plan, what) });
    const landing = { pattern, firstContent: both('firstContent'), interactive: both('interactive') };
    return [landing.firstContent, landing.interactive].some((b) => b.before || b.after) ? [landing] : [];
  });
}
