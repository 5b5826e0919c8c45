'use client';

import { create } from 'zustand';
import type { Limit, LimitState } from '../../core/limits/types.ts';
import { useAmendments } from './amendments.ts';
import { longWork } from './long-work.ts';
import { fitOf, type Subject, useSubject } from './subject.ts';
import { useWork } from './work.ts';
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
  // The plan's decisions are what counts; a limit names its own route and conditions.
  useWork(
    async (wanted) => {
      const states = !app || limits.length === 0 ? [] : await (await longWork()).handoff.limits(plan, [...limits]);
      if (wanted()) store.setState({ states, error: null, of: subject, limits });
    },
    (error) => store.setState({ states: [], error: error.message, of: subject, limits }),
    [app, planId, decisions, limits],
  );
}
