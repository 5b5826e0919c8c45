'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { analyst } from '../../worker/client.ts';
import type { LandingView } from '../../worker/views.ts';
import { useTrialPlan } from './trial.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

interface Landing {
  now: LandingView | null;
  /** What it is compared with: the baseline; while something is tried, the plan as it is. */
  ghost: LandingView | null;
  stale: { decision: number; reason: string }[];
  /** Detachments that take more than detaching. */
  blocked: { decision: number; import: string; reason: string; line: number }[];
  error: string | null;
  /** From the choice to the answer of the worker, in ms. */
  tookMs: number;
}

export const useLanding = create<Landing>()(() => ({
  now: null,
  ghost: null,
  stale: [],
  blocked: [],
  error: null,
  tookMs: 0,
}));

interface Wish {
  plan: Plan;
  behind: Plan;
  route: string;
  conditions: Conditions;
  at: number;
}

let running = false;
let next: Wish | null = null;

/** Keeps the landing up to date; while one is computed only the newest wish waits. */
export function useLandingUpdates(): void {
  const plan = usePlan();
  const tried = useTrialPlan();
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const conditions = useConditions();
  useEffect(() => {
    if (!app?.routes.some((r) => r.pattern === route)) return;
    next = { plan: tried ?? plan, behind: tried ? plan : BASELINE, route, conditions, at: performance.now() };
    void work();
  }, [app, plan, tried, route, conditions]);
}

async function work(): Promise<void> {
  if (running) return;
  running = true;
  while (next) {
    const { plan, behind, route, conditions, at }: Wish = next;
    next = null;
    try {
      const found = await analyst().landing(plan, route, conditions, behind);
      useLanding.setState({ ...found, error: null, tookMs: performance.now() - at });
    } catch (error) {
      useLanding.setState({ error: error instanceof Error ? error.message : String(error) });
    }
  }
  running = false;
}
