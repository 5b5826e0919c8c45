'use client';

import { analyst } from '../../../../worker/client.ts';
import type { SplitPicture } from '../../../../worker/views.ts';
import { type Asked, useAsked } from '../../../state/asked.ts';
import { useTrial, useTrialPlan } from '../../../state/trial.ts';

/** The route as blocks, with what is tried at present; the last one stays while the next is on its way. */
export function usePicture(open: readonly string[]): Asked<SplitPicture> {
  const tried = useTrialPlan();
  const trial = useTrial();
  return useAsked(
    ({ plan, route, conditions }) => analyst().split.picture(plan, tried, route, conditions, [...open]),
    '',
    ['route'],
    JSON.stringify([open, trial?.remedy.decisions ?? null, trial?.remedy.withdraw ?? null]),
  );
}
