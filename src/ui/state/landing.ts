'use client';

import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { analyst } from '../../worker/client.ts';
import type { LandingAnswer } from '../../worker/services/startup.ts';
import type { LandingView } from '../../worker/views.ts';
import { fitOf, type Subject, sameFolder, subjectNow, useSubject } from './subject.ts';
import { type Trial, useTrial, useTrialPlan } from './trial.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

/** What a landing is asked of: the same only if each is the same. */
interface LandingSubject extends Subject {
  trial: Trial | null;
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
  of: LandingSubject | null;
  /** From the choice to the answer of the worker, in ms. */
  tookMs: number;
}

const NOTHING: Landing = {
  now: null,
  ghost: null,
  stale: [],
  blocked: [],
  error: null,
  of: null,
  tookMs: 0,
};

const store = create<Landing>()(() => NOTHING);

/** Of the landing that is shown: never one of another folder, and none where the app has no such route. */
export function useLanding<T>(select: (landing: Landing) => T): T {
  const app = useWorkbench((s) => s.app);
  const hasRoute = useWorkbench((s) => s.app?.routes.some((r) => r.pattern === s.route) ?? false);
  return store((s) => select(sameFolder(s.of?.app ?? null, app) && hasRoute ? s : NOTHING));
}

/** What is chosen at present. */
function useLandingSubject(): LandingSubject {
  const subject = useSubject();
  const trial = useTrial();
  return useMemo(() => ({ ...subject, trial }), [subject, trial]);
}

/** Whether what is shown is still about something that was chosen before. */
export function useLandingIsOld(): boolean {
  const now = useLandingSubject();
  const of = store((s) => s.of);
  if (!now.app?.routes.some((r) => r.pattern === now.route)) return false;
  return fitOf(of, now) !== 'fits' || of?.trial !== now.trial;
}

interface Wish {
  plan: Plan;
  behind: Plan;
  route: string;
  conditions: Conditions;
  of: LandingSubject;
  at: number;
}

let running = false;
let next: Wish | null = null;

/** Keeps the landing up to date; while one is computed only the newest wish waits. */
export function useLandingUpdates(): void {
  const of = useLandingSubject();
  const plan = usePlan();
  const tried = useTrialPlan();
  const conditions = useConditions();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the plan's decisions and the conditions' ids are in the subject
  useEffect(() => {
    const { app, route } = of;
    if (!app?.routes.some((r) => r.pattern === route)) return;
    const { of: known, error } = store.getState();
    // It is there already: the server sent it along.
    if (!running && !error && fitOf(known, of) === 'fits' && known?.trial === of.trial) return;
    next = { plan: tried ?? plan, behind: tried ? plan : BASELINE, route, conditions, of, at: performance.now() };
    void work();
  }, [of, tried]);
}

/** Takes a landing that was worked out elsewhere for what is chosen now. */
export function takeLanding(found: LandingAnswer): void {
  store.setState({ ...found, error: null, of: { ...subjectNow(), trial: null }, tookMs: 0 });
}

async function work(): Promise<void> {
  if (running) return;
  running = true;
  while (next) {
    const { plan, behind, route, conditions, of, at }: Wish = next;
    next = null;
    try {
      const found = await analyst().startup.landing(plan, route, conditions, behind);
      store.setState({ ...found, error: null, of, tookMs: performance.now() - at });
    } catch (error) {
      store.setState({ error: error instanceof Error ? error.message : String(error), of });
    }
  }
  running = false;
}
