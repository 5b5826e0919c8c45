'use client';

import { useEffect, useRef, useState } from 'react';
import type { Plan } from '../../core/plan/types.ts';
import type { Asked, Present } from './asked.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

/**
 * Like useAsked, for what changes while something is dragged: the last answer stays until the next is there, and while
 * one is worked out only the newest question waits.
 */
export function useNewest<T>(ask: (now: Present) => Promise<T>, of: string): Asked<T> {
  const plan: Plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const conditions = useConditions();
  const question = useRef(ask);
  question.current = ask;
  const running = useRef(false);
  const next = useRef<Present | null>(null);
  const mounted = useRef(true);
  const [answer, setAnswer] = useState<Asked<T>>({ found: null, error: null });
  useEffect(() => {
    mounted.current = true;
    return () => {
      mounted.current = false;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot (app) or subject (of) gives another answer
  useEffect(() => {
    next.current = { plan, route, conditions };
    const work = async () => {
      if (running.current) return;
      running.current = true;
      while (next.current && mounted.current) {
        const now: Present = next.current;
        next.current = null;
        const found = await question.current(now).then(
          (value): Asked<T> => ({ found: value, error: null }),
          (error: Error): Asked<T> => ({ found: null, error: error.message }),
        );
        if (mounted.current) setAnswer(found);
      }
      running.current = false;
    };
    void work();
  }, [plan, app, route, conditions, of]);
  return answer;
}
