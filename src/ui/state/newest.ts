'use client';

import { useEffect, useRef, useState } from 'react';
import type { Plan } from '../../core/plan/types.ts';
import type { Asked, Present } from './asked.ts';
import { fitOf, type Subject, useSubject } from './subject.ts';
import { useConditions, usePlan } from './workbench.ts';

/**
 * Like useAsked, for what changes while something is dragged: the last answer stays until the next is there, also where
 * `of` changes, and while one is worked out only the newest question waits.
 */
export function useNewest<T>(ask: (now: Present) => Promise<T>, of: string): Asked<T> {
  const plan: Plan = usePlan();
  const subject = useSubject();
  const conditions = useConditions();
  const question = useRef(ask);
  question.current = ask;
  const running = useRef(false);
  const next = useRef<{ now: Present; about: Subject } | null>(null);
  const mounted = useRef(true);
  const [answer, setAnswer] = useState<Asked<T> & { about: Subject | null }>({ ...NOTHING, about: null });
  useEffect(() => {
    mounted.current = true;
    return () => {
      mounted.current = false;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another subject of the question (of) gives another answer
  useEffect(() => {
    next.current = { now: { plan, route: subject.route, conditions }, about: subject };
    const work = async () => {
      if (running.current) return;
      running.current = true;
      while (next.current && mounted.current) {
        const { now, about } = next.current;
        next.current = null;
        const found = await question.current(now).then(
          (value): Asked<T> => ({ found: value, error: null }),
          (error: Error): Asked<T> => ({ found: null, error: error.message }),
        );
        if (mounted.current) setAnswer({ ...found, about });
      }
      running.current = false;
    };
    void work();
  }, [subject, of]);
  return fitOf(answer.about, subject) === 'other' ? NOTHING : answer;
}

const NOTHING = { found: null, error: null };
