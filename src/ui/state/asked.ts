'use client';

import { useRef, useState } from 'react';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { fitOf, type Sides, type Subject, useSubject } from './subject.ts';
import { useWork } from './work.ts';
import { useConditions, usePlan } from './workbench.ts';

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
 * the question is about. While decisions are made in one plan the last answer stays until the next is there; about
 * anything else (another app, plan, route, conditions on which it hangs) nothing is shown before its own answer.
 */
export function useAsked<T>(
  ask: (now: Present) => Promise<T>,
  of = '',
  sides?: Sides,
  /** What else changes the answer without being another question: the last answer stays until the next is there. */
  also = '',
): Asked<T> {
  const plan = usePlan();
  const subject = useSubject();
  const conditions = useConditions();
  const question = useRef(ask);
  question.current = ask;
  const [answer, setAnswer] = useState<Asked<T> & { of: string; about: Subject | null }>({
    ...NOTHING,
    of,
    about: null,
  });
  // The plan's decisions and the conditions' ids are in the subject.
  useWork(
    async (wanted) => {
      const found = await question.current({ plan, route: subject.route, conditions });
      if (wanted()) setAnswer({ found, error: null, of, about: subject });
    },
    (error) => setAnswer({ found: null, error: error.message, of, about: subject }),
    [subject, of, also],
  );
  return answer.of === of && fitOf(answer.about, subject, sides) !== 'other' ? answer : NOTHING;
}

const NOTHING = { found: null, error: null };
