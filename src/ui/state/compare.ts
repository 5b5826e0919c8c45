'use client';

import { useMemo, useState } from 'react';
import { create } from 'zustand';
import type { PlanTable } from '../../core/compare/compare.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../../core/sim/conditions.ts';
import { deviceOf, linkOf } from '../../core/sim/own-conditions.ts';
import type { CacheState } from '../../core/vocabulary/cache-states.ts';
import type { AppView } from '../../worker/views.ts';
import { longWork } from './long-work.ts';
import { nameOf, useKeptConditions } from './own-conditions.ts';
import { useWork } from './work.ts';
import { useConditions, usePlan, useWorkbench } from './workbench.ts';

export const MOST_PLANS = 6;
export const MOST_CONDITIONS = 6;

/** Conditions by their ids. */
export interface ConditionIds {
  link: string;
  device: string;
  cache: CacheState;
}

interface CompareChoice {
  /** Names of plans, in their order; null: the baseline and the open plan. */
  plans: string[] | null;
  /** Beside those that are chosen at the top. */
  more: ConditionIds[];
  page: string;
}

export const useCompareChoice = create<CompareChoice>()(() => ({ plans: null, more: [], page: 'figures' }));

/** The plans that are laid beside one another; the first is what the others are compared with. */
export function useComparedPlans(): Plan[] {
  const chosen = useCompareChoice((s) => s.plans);
  const stored = useWorkbench((s) => s.project?.plans);
  const open = usePlan();
  return useMemo(() => {
    const all = [BASELINE, ...(stored ?? [])];
    const second = open.name === BASELINE.name ? (stored?.[0] ?? null) : open;
    const names = chosen ?? [BASELINE.name, ...(second ? [second.name] : [])];
    return names.flatMap((n) => all.find((p) => p.name === n) ?? []);
  }, [chosen, stored, open]);
}

/** The conditions at the top, and those beside them. */
export function useComparedConditions(): Conditions[] {
  const first = useConditions();
  const more = useCompareChoice((s) => s.more);
  return useMemo(
    () => [first, ...more.map(({ link, device, cache }) => ({ link: linkOf(link), device: deviceOf(device), cache }))],
    [first, more],
  );
}

/** Conditions in words; own ones by the names that they were kept under. */
export function conditionsWords({ link, device, cache }: Conditions): string {
  const { links, devices } = useKeptConditions.getState();
  return `${nameOf(links, link)}, ${nameOf(devices, device)}, ${cache}`;
}

/** Conditions to begin with that aren't among those: a slower or another link on the same device. */
export function nextConditions(among: readonly Conditions[]): ConditionIds | null {
  const taken = new Set(among.map((c) => `${c.link.id} ${c.device.id} ${c.cache}`));
  for (const device of [among[0].device, ...DEVICES])
    for (const link of LINKS)
      if (!taken.has(`${link.id} ${device.id} ${among[0].cache}`))
        return { link: link.id, device: device.id, cache: among[0].cache };
  return null;
}

export interface Compared {
  plans: Plan[];
  conditions: Conditions[];
  /** A table for each plan, once all are there. */
  tables: PlanTable[] | null;
  done: number;
  error: string | null;
}

/** Every figure of the compared plans, worked out plan by plan; one that didn't change isn't asked for again. */
export function useCompared(): Compared {
  const plans = useComparedPlans();
  const conditions = useComparedConditions();
  const app = useWorkbench((s) => s.app);
  const [state, setState] = useState<
    Omit<Compared, 'plans' | 'conditions'> & { of: Plan[]; under: Conditions[]; app: AppView | null }
  >({
    tables: null,
    done: 0,
    error: null,
    of: [],
    under: [],
    app: null,
  });
  useWork(
    async (wanted) => {
      const worker = await longWork();
      const tables: PlanTable[] = [];
      for (const plan of plans) {
        const table = await worker.compare.table(plan, conditions);
        if (!wanted()) return;
        tables.push(table);
        setState((s) => ({ ...s, done: tables.length, error: null }));
      }
      if (wanted()) setState({ tables, done: tables.length, error: null, of: plans, under: conditions, app });
    },
    (error) => setState((s) => ({ ...s, error: error.message })),
    [plans, conditions, app],
  );
  // Until the next figures are there, the last ones stand with the plans and conditions that they are of.
  const known = state.tables !== null && state.app === app;
  return {
    plans: known ? state.of : plans,
    conditions: known ? state.under : conditions,
    tables: known ? state.tables : null,
    done: state.done,
    error: state.error,
  };
}
