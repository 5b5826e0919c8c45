'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { Limit, LimitState } from '../../core/limits/types.ts';
import { useAmendments } from './amendments.ts';
import { longWork } from './long-work.ts';
import { usePlan, useWorkbench } from './workbench.ts';

interface Limits {
  /** How the limits stand under the open plan, in their order. */
  states: LimitState[];
  error: string | null;
}

export const useLimitStates = create<Limits>()(() => ({ states: [], error: null }));

const NONE: readonly Limit[] = [];

export function useLimits(): readonly Limit[] {
  return useAmendments().limits ?? NONE;
}

/** Keeps the limits' states in step with the plan, in the background. */
export function useLimitUpdates(): void {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const limits = useLimits();
  useEffect(() => {
    let current = true;
    const take = (next: Limits) => current && useLimitStates.setState(next);
    if (!app || limits.length === 0) take({ states: [], error: null });
    else
      longWork()
        .then((worker) => worker.limits(plan, [...limits]))
        .then(
          (states) => take({ states, error: null }),
          (error: Error) => take({ states: [], error: error.message }),
        );
    return () => {
      current = false;
    };
  }, [plan, app, limits]);
}
