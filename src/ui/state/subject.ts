'use client';

import { useMemo } from 'react';
import { BASELINE, type Decision } from '../../core/plan/types.ts';
import type { AppView } from '../../worker/views.ts';
import { storedPlan, useWorkbench } from './workbench.ts';

/** What an answer is about. It is shown only while that is what the person looks at. */
export interface Subject {
  /** The app as read and corrected: another project, another reading or another correction makes another one. */
  app: AppView | null;
  planId: string | null;
  /** Of the plan, as they were. */
  decisions: Decision[];
  route: string;
  /** Ids of link, device and cache state. */
  conditions: string;
}

type State = ReturnType<typeof useWorkbench.getState>;

const subjectOf = (s: State): Subject => ({
  app: s.app,
  planId: s.planId,
  decisions: decisionsOf(s),
  route: s.route,
  conditions: conditionsOf(s),
});
const decisionsOf = (s: State) => (storedPlan(s) ?? BASELINE).decisions;
const conditionsOf = (s: State) => `${s.linkId} ${s.deviceId} ${s.cache}`;

/** What is looked at now; the same object until something of it changes. */
export function useSubject(): Subject {
  const app = useWorkbench((s) => s.app);
  const planId = useWorkbench((s) => s.planId);
  const decisions = useWorkbench(decisionsOf);
  const route = useWorkbench((s) => s.route);
  const conditions = useWorkbench(conditionsOf);
  return useMemo(() => ({ app, planId, decisions, route, conditions }), [app, planId, decisions, route, conditions]);
}

export function subjectNow(): Subject {
  return subjectOf(useWorkbench.getState());
}

/** How an answer fits: `changed since`: it is about the same, but for what was decided in the plan, or saved in the app's folder, meanwhile. */
export type Fit = 'fits' | 'changed since' | 'other';

/** Readings of one folder that follow one another while it is looked at, each with the first of them. */
const firstOf = new WeakMap<AppView, AppView>();

/** The same app, read anew because a file was saved: answers about the one before stay until those about it are there. */
export function continues(before: AppView, now: AppView): void {
  firstOf.set(now, firstOf.get(before) ?? before);
}

/** Whether two apps are the same, or readings of one folder that follow one another. */
export function sameFolder(a: AppView | null, b: AppView | null): boolean {
  return a !== null && b !== null && (firstOf.get(a) ?? a) === (firstOf.get(b) ?? b);
}

/** Which of a subject's sides an answer hangs on, beside the app and the plan. */
export type Sides = readonly ('route' | 'conditions')[];

export function fitOf(of: Subject | null, now: Subject, sides: Sides = ['route', 'conditions']): Fit {
  if (!of || !sameFolder(of.app, now.app) || of.planId !== now.planId) return 'other';
  if (sides.some((side) => of[side] !== now[side])) return 'other';
  return of.app === now.app && of.decisions === now.decisions ? 'fits' : 'changed since';
}
