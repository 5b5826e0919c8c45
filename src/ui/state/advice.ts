'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { Advice, Finding, Score } from '../../core/advise/types.ts';
import { longCrew, newRun, sharedOut } from './long-work.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

interface AdviceState {
  /** For the plan as it was when it was worked out; the next one replaces it. */
  advice: Advice | null;
  /** Share of the work that is done, 0 to 1. */
  done: number;
  error: string | null;
  /** The finding that is looked at, by its id; null: the first. */
  chosen: string | null;
}

export const useAdvice = create<AdviceState>()(() => ({ advice: null, done: 0, error: null, chosen: null }));

/** Advice begins when nothing was decided for so long. In ms. */
const REST_MS = 500;

const wait = (ms: number) => new Promise((go) => setTimeout(go, ms));

/** Keeps the advice in step with plan and conditions, in the background. */
export function useAdviceUpdates(): void {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const conditions = useConditions();
  useEffect(() => {
    if (!app || app.routes.length === 0) return;
    let current = true;
    useAdvice.setState({ done: 0, error: null });
    const work = async () => {
      await wait(REST_MS);
      if (!current) return;
      const crew = await longCrew();
      const [worker, ...others] = crew;
      const run = newRun();
      let given: Score[] | undefined;
      while (current) {
        const help = others.length > 0 ? { given } : undefined;
        const { done, of, advice, ahead } = await worker.advise(plan, conditions, help);
        if (!current) return;
        useAdvice.setState(advice ? { advice, done: 1 } : { done: done / Math.max(1, of) });
        if (advice) return;
        given = undefined;
        if (!ahead) continue;
        const parts = await sharedOut(crew, ahead, (a, plans) => a.helpAdvise(plans, conditions, run));
        given = [];
        for (const { places, made } of parts) for (const [n, at] of places.entries()) given[at] = made[n];
      }
    };
    work().catch((error: Error) => current && useAdvice.setState({ error: error.message, done: 1 }));
    return () => {
      current = false;
    };
  }, [plan, app, conditions]);
}

/** Findings that aren't put aside, and those that are with their reasons. */
export function useFindings(): { open: Finding[]; aside: { finding: Finding; reason: string }[] } {
  const advice = useAdvice((s) => s.advice);
  const plan = usePlan();
  const reasons = new Map(
    plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [[d.finding, d.reason] as const] : [])),
  );
  const all = advice?.findings ?? [];
  return {
    open: all.filter((f) => !reasons.has(f.id)),
    aside: all.flatMap((finding) => {
      const reason = reasons.get(finding.id);
      return reason === undefined ? [] : [{ finding, reason }];
    }),
  };
}
