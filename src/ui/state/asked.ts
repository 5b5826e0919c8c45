'use client';

import { useEffect, useRef, useState } from 'react';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

/** What is chosen at present. */
export interface Present {
  plan: Plan;
  route: string;
  conditions: Conditions;
}

export interface Asked<T> {
  found: T | null;
  error: string | null;
}

/**
 * What the worker answers about what is chosen at present; asked again when that changes, or `of`, which names what else
 * the question is about. The last answer stays until the next is there, but for another `of`.
 */
export function useAsked<T>(ask: (now: Present) => Promise<T>, of = ''): Asked<T> {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const conditions = useConditions();
  const question = useRef(ask);
  question.current = ask;
  const [answer, setAnswer] = useState<Asked<T> & { of: string }>({ found: null, error: null, of });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) gives another answer
  useEffect(() => {
    let current = true;
    question.current({ plan, route, conditions }).then(
      (found) => current && setAnswer({ found, error: null, of }),
      (error: Error) => current && setAnswer({ found: null, error: error.message, of }),
    );
    return () => {
      current = false;
    };
  }, [plan, app, route, conditions, of]);
  return answer.of === of ? answer : { found: null, error: null };
}
