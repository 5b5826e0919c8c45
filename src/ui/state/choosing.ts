'use client';

import { create } from 'zustand';
import type { Choice, Limits, Turn } from '../../core/advise/choose.ts';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { longWork } from './long-work.ts';

interface Choosing {
  at: 'nothing' | 'choosing' | 'stopped' | 'chosen';
  turns: Turn[];
  /** Of the present turn, how many of its ways were tried, 0 to 1. */
  share: number;
  choice: Choice | null;
  /** The plan that the choice began with. */
  of: Plan | null;
  error: string | null;
}

const NOTHING: Choosing = { at: 'nothing', turns: [], share: 0, choice: null, of: null, error: null };

/** A choice goes on while the person looks at something else. */
export const useChoosing = create<Choosing>()(() => NOTHING);

let run = 0;

export async function startChoosing(plan: Plan, conditions: Conditions, limits: Limits): Promise<void> {
  const mine = ++run;
  useChoosing.setState({ ...NOTHING, at: 'choosing', of: plan });
  try {
    const worker = await longWork();
    for (let begin = true; run === mine; begin = false) {
      const { turns, done, of, choice } = await worker.choose(plan, conditions, limits, begin);
      if (run !== mine) return;
      useChoosing.setState({ turns, share: done / Math.max(1, of), ...(choice ? { choice, at: 'chosen' } : {}) });
      if (choice) return;
    }
  } catch (reason) {
    if (run !== mine) return;
    useChoosing.setState({ ...NOTHING, error: reason instanceof Error ? reason.message : String(reason) });
  }
}

/** Leaves it with what was chosen so far. */
export function stopChoosing(): void {
  run++;
  useChoosing.setState((s) => (s.at === 'choosing' ? { at: 'stopped' } : s));
}

export function forgetChoice(): void {
  run++;
  useChoosing.setState(NOTHING);
}
