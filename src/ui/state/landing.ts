'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { analyst } from '../../worker/client.ts';
import type { AppView, LandingView } from '../../worker/views.ts';
import { type Trial, useTrial, useTrialPlan } from './trial.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

/** What a landing is asked of: the same only if each is the same. */
interface Subject {
  app: AppView | null;
  plan: Plan;
  trial: Trial | null;
  route: string;
  conditions: string;
}

interface Landing {
  now: LandingView | null;
  /** What it is compared with: the baseline; while something is tried, the plan as it is. */
  ghost: LandingView | null;
  stale: { decision: number; reason: string }[];
  /** Detachments that take more than detaching. */
  blocked: { decision: number; import: string; reason: string; line: number }[];
  error: string | null;
  /** What the answer is about; the person may have chosen something else since. */
  of: Subject | null;
  /** From the choice to the answer of the worker, in ms. */
  tookMs: number;
}

export const useLanding = create<Landing>()(() => ({
  now: null,
  ghost: null,
  stale: [],
  blocked: [],
  error: null,
  of: null,
  tookMs: 0,
}));

/** What is chosen at present. */
function useSubject(): Subject {
  const app = useWorkbench((s) => s.app);
  const plan = usePlan();
  const trial = useTrial();
  const route = useWorkbench((s) => s.route);
  const conditions = useWorkbench((s) => `${s.linkId} ${s.deviceId} ${s.cache}`);
  return { app, plan, trial, route, conditions };
}

/** Whether what is shown is still about something that was chosen before. */
export function useLandingIsOld(): boolean {
  const now = useSubject();
  const of = useLanding((s) => s.of);
  if (!now.app?.routes.some((r) => r.pattern === now.route)) return false;
  return of === null || (Object.keys(now) as (keyof Subject)[]).some((key) => now[key] !== of[key]);
}

interface Wish {
  plan: Plan;
  behind: Plan;
  route: string;
  conditions: Conditions;
  of: Subject;
  at: number;
}

let running = false;
let next: Wish | null = null;

/** Keeps the landing up to date; while one is computed only the newest wish waits. */
export function useLandingUpdates(): void {
  const { app, plan, trial, route, conditions: named } = useSubject();
  const tried = useTrialPlan();
  const conditions = useConditions();
  useEffect(() => {
    if (!app?.routes.some((r) => r.pattern === route)) return;
    const of = { app, plan, trial, route, conditions: named };
    next = { plan: tried ?? plan, behind: tried ? plan : BASELINE, route, conditions, of, at: performance.now() };
    void work();
  }, [app, plan, trial, tried, route, named, conditions]);
}

async function work(): Promise<void> {
  if (running) return;
  running = true;
  while (next) {
    const { plan, behind, route, conditions, of, at }: Wish = next;
    next = null;
    try {
      const found = await analyst().landing(plan, route, conditions, behind);
      useLanding.setState({ ...found, error: null, of, tookMs: performance.now() - at });
    } catch (error) {
      useLanding.setState({ error: error instanceof Error ? error.message : String(error), of });
    }
  }
  running = false;
}
