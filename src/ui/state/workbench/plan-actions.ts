import { freePlanName } from '../../../core/formats/plan-file.ts';
import { api } from '../api.ts';
import { type Bench, followOrigin, planOf, putPlan, storedPlan } from './bench.ts';
import { isAboutReading, keeping, NO_HISTORY, taken } from './history.ts';
import { telling } from './notices.ts';
import type { PlanSaver } from './plan-saver.ts';
import type { Workbench } from './types.ts';

type Actions = Pick<
  Workbench,
  'choosePlan' | 'addPlan' | 'describePlan' | 'removePlan' | 'takeFromTab' | 'takeTheirs' | 'keepMine'
>;

/** What is done with whole plans. */
export function planActions(bench: Bench, saver: PlanSaver): Actions {
  const { get, set } = bench;
  return {
    choosePlan(id) {
      set({ planId: id, ...keeping(get(), isAboutReading), conflict: null });
      saver.takeUp();
    },
    async addPlan(name, decisions, basedOn) {
      const { project } = get();
      if (!project) return;
      const plan = await api.createPlan(project.id, name, decisions, basedOn);
      if (get().project?.id !== project.id) return;
      putPlan(bench, plan);
      get().choosePlan(plan.id);
    },
    async describePlan(values) {
      const plan = storedPlan(get());
      if (!plan) return;
      const before = { name: plan.name, description: plan.description };
      const after = { ...before, ...values };
      await saver.describe(plan.id, after);
      const words = after.name === before.name ? `describe “${before.name}”` : `rename to “${after.name}”`;
      if (get().planId === plan.id) set(taken(get(), { of: 'description', words, planId: plan.id, before, after }));
    },
    async removePlan() {
      const { project } = get();
      const plan = storedPlan(get());
      if (!project || !plan) return;
      await api.removePlan(plan.id);
      const open = get().project;
      if (open?.id !== project.id) return;
      saver.settle(plan.id);
      const plans = open.plans.filter((p) => p.id !== plan.id);
      set({ project: { ...open, plans } });
      followOrigin(bench, plan.name, null);
      get().choosePlan(plans[0]?.id ?? null);
    },
    takeFromTab(plan, where = 'in another tab') {
      const mine = planOf(bench, plan.id);
      if (!mine || mine.version >= plan.version || get().saving !== 'saved') return;
      putPlan(bench, plan);
      if (get().planId !== plan.id) return;
      set({ ...keeping(get(), isAboutReading), ...telling(get(), `“${plan.name}” was changed ${where}.`) });
    },
    ...conflictActions(bench, saver),
  };
}

/** What is done where a plan was changed here and elsewhere. */
function conflictActions(bench: Bench, saver: PlanSaver): Pick<Actions, 'takeTheirs' | 'keepMine'> {
  const { get, set } = bench;
  return {
    takeTheirs() {
      const { conflict } = get();
      if (!conflict) return;
      putPlan(bench, conflict);
      saver.settle(conflict.id);
      set(NO_HISTORY);
    },
    async keepMine() {
      const { conflict, project } = get();
      const mine = storedPlan(get());
      if (!conflict || !mine || !project) return;
      const name = freePlanName(
        `${mine.name}, my copy`,
        project.plans.map((p) => p.name),
      );
      // Nothing of mine is let go of before the copy is there; what is decided meanwhile goes into it as well.
      const copy = await api.createPlan(project.id, name, mine.decisions, mine.name);
      if (get().project?.id !== project.id) return;
      const { decisions } = planOf(bench, mine.id) ?? mine;
      putPlan(bench, conflict);
      saver.settle(conflict.id);
      putPlan(bench, { ...copy, decisions });
      get().choosePlan(copy.id);
      if (decisions !== mine.decisions) saver.change(decisions);
    },
  };
}
