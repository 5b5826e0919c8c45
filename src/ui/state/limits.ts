'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { Limit, LimitState } from '../../core/limits/types.ts';
import { useAmendments } from './amendments.ts';
import { longWork } from './long-work.ts';
import { fitOf, type Subject, useSubject } from './subject.ts';
import { usePlan } from './workbench.ts';

interface Limits {
  /** How the limits stand under the open plan, in their order. */
  states: LimitState[];
  error: string | null;
}

const NOTHING: Limits = { states: [], error: null };
const store = create<Limits & { of: Subject | null; limits: readonly Limit[] }>()(() => ({
  ...NOTHING,
  of: null,
  limits: [],
}));

/** The states of the limits as they are now; none while they are worked out. */
export function useLimitStates(): Limits {
  const subject = useSubject();
  const limits = useLimits();
  const known = store();
  return fitOf(known.of, subject, []) === 'fits' && known.limits === limits ? known : NOTHING;
}

const NONE: readonly Limit[] = [];

export function useLimits(): readonly Limit[] {
  return useAmendments().limits ?? NONE;
}

/** Keeps the limits' states in step with the plan, in the background. */
export function useLimitUpdates(): void {
  const plan = usePlan();
  const subject = useSubject();
  const { app, planId, decisions } = subject;
  const limits = useLimits();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the plan's decisions are what counts; a limit names its own route and conditions
  useEffect(() => {
    let current = true;
    const take = (next: Limits) => current && store.setState({ ...next, of: subject, limits });
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
  }, [app, planId, decisions, limits]);
}
