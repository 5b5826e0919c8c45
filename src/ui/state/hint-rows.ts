'use client';

import { useState } from 'react';
import type { HintRow } from '../../core/choose/hint-table.ts';
import { longWork } from './long-work.ts';
import { fitOf, type Subject, useSubject } from './subject.ts';
import { useWork } from './work.ts';
import { useConditions, usePlan } from './workbench.ts';

export interface HintRowsState {
  /** Of the plan as it was when they were measured; the next ones replace them. */
  rows: HintRow[] | null;
  done: number;
  error: string | null;
}

const REST_MS = 200;

/** Every hint of the plan and beside it, measured in the background. */
export function useHintRows(): HintRowsState {
  const plan = usePlan();
  const subject = useSubject();
  const { app, planId, decisions, conditions: named } = subject;
  const conditions = useConditions();
  const [{ of, ...state }, setState] = useState<HintRowsState & { of: Subject | null }>({ ...NOTHING, of: null });
  // The plan's decisions and the conditions' ids are what counts; not the route.
  useWork(
    async (wanted) => {
      setState((s) => ({ ...s, done: 0, error: null }));
      await new Promise((go) => setTimeout(go, REST_MS));
      const worker = await longWork();
      while (wanted()) {
        const { done, of, rows } = await worker.advice.hints(plan, conditions);
        if (!wanted()) return;
        setState((s) => (rows ? { rows, done: 1, error: null, of: subject } : { ...s, done: done / Math.max(1, of) }));
        if (rows) return;
      }
    },
    (reason) => setState((s) => ({ ...s, done: 1, error: reason.message })),
    [app, planId, decisions, named],
  );
  return fitOf(of, subject, ['conditions']) === 'other' ? { ...state, rows: null } : state;
}

const NOTHING: HintRowsState = { rows: null, done: 0, error: null };
