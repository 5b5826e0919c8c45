'use client';

import { useMemo } from 'react';
import { create } from 'zustand';
import type { Remedy } from '../../core/advise/types.ts';
import { planWith } from '../../core/plan/decisions.ts';
import type { Plan } from '../../core/plan/types.ts';
import type { AppView } from '../../worker/views.ts';
import { usePlan, useWorkbench } from './workbench.ts';

/** A change that is looked at without being made. It ends with any change of the plan that it was laid over. */
export interface Trial {
  remedy: Remedy;
  over: Plan;
  app: AppView | null;
}

export const useTrials = create<{ trial: Trial | null }>()(() => ({ trial: null }));

export function tryOut(remedy: Remedy, over: Plan): void {
  useTrials.setState({ trial: { remedy, over, app: useWorkbench.getState().app } });
}

export function endTrial(): void {
  useTrials.setState({ trial: null });
}

/** The change that is tried at present. */
export function useTrial(): Trial | null {
  const plan = usePlan();
  const trial = useTrials((s) => s.trial);
  const app = useWorkbench((s) => s.app);
  return trial?.over === plan && trial.app === app ? trial : null;
}

/** The plan with what is tried; null while nothing is. */
export function useTrialPlan(): Plan | null {
  const trial = useTrial();
  return useMemo(() => trial && planWith(trial.over, trial.remedy), [trial]);
}

/** Whether a change is tried at present, and what begins or ends that. */
export function usePreviewOf(remedy: Remedy): { on: boolean; toggle: () => void } {
  const plan = usePlan();
  const trial = useTrial();
  const on = trial !== null && JSON.stringify(trial.remedy) === JSON.stringify(remedy);
  return { on, toggle: () => (on ? endTrial() : tryOut(remedy, plan)) };
}
