'use client';

import { useEffect, useState } from 'react';
import type { HintRow } from '../../core/choose/hint-table.ts';
import { longWork } from './long-work.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

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
  const app = useWorkbench((s) => s.app);
  const conditions = useConditions();
  const [state, setState] = useState<HintRowsState>({ rows: null, done: 0, error: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) gives another answer
  useEffect(() => {
    let current = true;
    setState((s) => ({ ...s, done: 0, error: null }));
    const work = async () => {
      await new Promise((go) => setTimeout(go, REST_MS));
      const worker = await longWork();
      while (current) {
        const { done, of, rows } = await worker.hints(plan, conditions);
        if (!current) return;
        setState((s) => (rows ? { rows, done: 1, error: null } : { ...s, done: done / Math.max(1, of) }));
        if (rows) return;
      }
    };
    work().catch((reason: Error) => current && setState((s) => ({ ...s, done: 1, error: reason.message })));
    return () => {
      current = false;
    };
  }, [plan, app, conditions]);
  return state;
}
