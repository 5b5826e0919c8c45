import { randomUUID } from 'node:crypto';
import { DECISION_LIST } from '../core/plan/types.ts';
import type { Store } from '../store/database.ts';
import {
  deletePlan,
  findPlan,
  insertPlan,
  listPlans,
  renameOrigin,
  type StoredPlan,
  updatePlan,
} from '../store/plans.ts';
import { findProject } from '../store/projects.ts';
import type { NewPlanInput, PlanChangeInput } from './inputs.ts';
import { Problem } from './problem.ts';
import { noProject } from './projects.ts';

export function createPlan(store: Store, projectId: string, input: NewPlanInput): StoredPlan {
  if (!findProject(store, projectId)) throw noProject();
  const plan: StoredPlan = {
    id: randomUUID(),
    projectId,
    name: input.name,
    description: input.description ?? '',
    decisions: DECISION_LIST.check(input.decisions ?? [], 'decisions'),
    basedOn: input.basedOn ?? null,
    version: 1,
    changedAt: new Date().toISOString(),
  };
  store
    .transaction(() => {
      refuseTwin(store, projectId, input.name, plan.id);
      if (plan.basedOn !== null && !listPlans(store, projectId).some((p) => p.name === plan.basedOn))
        throw new Problem('based-on-nothing', 'Based on nothing', `There is no plan called “${plan.basedOn}”.`, {
          at: 'basedOn',
        });
      insertPlan(store, plan);
    })
    .immediate();
  return plan;
}

/**
 * Changes a plan. The writer tells which version it saw; if another one is stored by now, nothing is written and the
 * stored plan comes back with the problem.
 */
export function changePlan(store: Store, id: string, input: PlanChangeInput): StoredPlan {
  return store
    .transaction(() => {
      const old = planOf(store, id);
      const next: StoredPlan = {
        ...old,
        name: input.name ?? old.name,
        description: input.description ?? old.description,
        decisions: input.decisions ? DECISION_LIST.check(input.decisions, 'decisions') : old.decisions,
        version: old.version + 1,
        changedAt: new Date().toISOString(),
      };
      if (next.name !== old.name) refuseTwin(store, old.projectId, next.name, id);
      if (old.version !== input.version || !updatePlan(store, next, input.version)) {
        throw new Problem(
          'changed-elsewhere',
          'Changed elsewhere',
          `“${old.name}” was changed in another tab or by someone else since you opened it.`,
          { current: old },
        );
      }
      if (next.name !== old.name) renameOrigin(store, old.projectId, old.name, next.name);
      return next;
    })
    .immediate();
}

export function removePlan(store: Store, id: string): void {
  const { projectId, name } = planOf(store, id);
  store
    .transaction(() => {
      deletePlan(store, id);
      renameOrigin(store, projectId, name, null);
    })
    .immediate();
}

export function planOf(store: Store, id: string): StoredPlan {
  const plan = findPlan(store, id);
  if (!plan) throw new Problem('no-such-plan', 'No such plan', 'It may have been deleted. Choose another one.');
  return plan;
}

function refuseTwin(store: Store, projectId: string, name: string, id: string): void {
  if (name === 'Baseline' || listPlans(store, projectId).some((p) => p.name === name && p.id !== id)) {
    throw new Problem(
      'name-taken',
      'Two plans with one name',
      `There is a plan called “${name}” already; choose another name.`,
      { at: 'name' },
    );
  }
}
