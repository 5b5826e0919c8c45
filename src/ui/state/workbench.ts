'use client';

import { useMemo } from 'react';
import { create } from 'zustand';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../../core/sim/conditions.ts';
import { choiceOf, conditionsOf } from '../../worker/choice.ts';
import { AmendmentSaver } from './workbench/amendment-saver.ts';
import { storedPlan } from './workbench/bench.ts';
import { decisionActions } from './workbench/decision-actions.ts';
import { NO_HISTORY } from './workbench/history.ts';
import { telling } from './workbench/notices.ts';
import { planActions } from './workbench/plan-actions.ts';
import { PlanSaver } from './workbench/plan-saver.ts';
import type { Workbench } from './workbench/types.ts';

export { storedPlan };

const CLOSED = { project: null, app: null, planId: null, selection: null, conflict: null, ...NO_HISTORY } as const;

/** What is open, decided and chosen; its parts are in `workbench/`. */
export const useWorkbench = create<Workbench>()((set, get) => {
  const bench = { get, set };
  const plans = new PlanSaver(bench);
  const amendments = new AmendmentSaver(bench);
  return {
    ...CLOSED,
    route: '/',
    linkId: LINKS[0].id,
    deviceId: DEVICES[0].id,
    cache: 'empty',
    saving: 'saved',
    savingAmendments: 'saved',
    troubled: false,
    notices: [],

    close() {
      set(CLOSED);
    },
    open(project, app, wished) {
      plans.forgetAll();
      set({
        ...CLOSED,
        project,
        app,
        ...choiceOf(wished, project.plans, app.routes),
        saving: 'saved',
        savingAmendments: 'saved',
      });
      if (wished.route && app.routes.length > 0 && !app.routes.some((r) => r.pattern === wished.route))
        set(telling(get(), `${project.name} has no route ${wished.route}; ${get().route} is shown.`));
      plans.takeUp();
    },
    choose(values) {
      set(values);
    },
    ...planActions(bench, plans),
    ...decisionActions(bench, plans, amendments),
    async saveNow() {
      await Promise.all([plans.save(), get().savingAmendments === 'saved' ? null : amendments.save()]);
    },
  };
});

export function usePlan(): Plan {
  return useWorkbench((s) => storedPlan(s)) ?? BASELINE;
}

/** The conditions that are chosen; the same object until one of them changes. */
export function useConditions(): Conditions {
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  return useMemo(() => conditionsOf({ linkId, deviceId, cache }), [linkId, deviceId, cache]);
}
