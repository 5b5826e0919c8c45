'use client';

import { useMemo } from 'react';
import { create } from 'zustand';
import type { Amendments } from '../../core/amend/types.ts';
import { freePlanName } from '../../core/formats/plan-file.ts';
import { decisionWords, withDecision, withoutSubject } from '../../core/plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../../core/plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../../core/sim/conditions.ts';
import { deviceOf, linkOf } from '../../core/sim/own-conditions.ts';
import { CACHE_STATES } from '../../core/vocabulary/cache-states.ts';
import type { ProjectView } from '../../server/projects.ts';
import type { StoredPlan } from '../../store/plans.ts';
import { api, Refusal } from './api.ts';
import { oneAtATime } from './one-at-a-time.ts';
import { tellTabs } from './tabs.ts';
import { forgetUnsaved, keepUnsaved, unsavedOf } from './unsaved.ts';
import type { Description, Saving, Step, Workbench } from './workbench-types.ts';

/** How long until saving is tried again, in ms. */
const RETRY_MS = 3000;

export const useWorkbench = create<Workbench>()((set, get) => {
  const putPlan = (plan: StoredPlan) => {
    const { project } = get();
    if (!project) return;
    const others = project.plans.filter((p) => p.id !== plan.id);
    set({ project: { ...project, plans: [...others, plan].sort((a, b) => (a.name < b.name ? -1 : 1)) } });
  };

  /** Plans that began as a copy follow the name of their origin, as they do in the store. */
  const followOrigin = (from: string, to: string | null) => {
    const { project } = get();
    if (!project || from === to) return;
    const plans = project.plans.map((p) => (p.basedOn === from ? { ...p, basedOn: to } : p));
    set({ project: { ...project, plans } });
  };

  const change = (decisions: Decision[]) => {
    const plan = storedPlan(get());
    if (!plan) return;
    const changed = { ...plan, decisions };
    putPlan(changed);
    keepUnsaved(changed);
    unconfirmed.add(plan.id);
    void savePlans();
  };

  const correct = (amendments: Amendments) => {
    const { project } = get();
    if (!project) return;
    set({ project: { ...project, amended: { ...project.amended, amendments } } });
    void saveAmendments();
  };

  const push = (step: Step) => set({ done: [...get().done, step], undone: [] });

  const step = (words: string, after: Decision[]) => {
    const plan = storedPlan(get());
    if (!plan) return;
    push({ of: 'plan', words, before: plan.decisions, after });
    change(after);
  };

  const go = (step: Step, to: 'before' | 'after') => {
    switch (step.of) {
      case 'plan':
        change(step[to]);
        return;
      case 'reading':
        correct(step[to]);
        return;
      case 'description':
        saveDescription(step.planId, step[to]).catch((error: Error) => set({ notice: error.message }));
    }
  };

  /** Saves what a plan is called and for; what is being saved of it comes first, so that versions follow one another. */
  const saveDescription = async (id: string, values: Partial<Description>) => {
    await savePlans();
    const plan = planOf(id);
    if (!plan) return;
    const saved = await api.savePlan(plan.id, plan.version, values);
    followOrigin(plan.name, saved.name);
    putPlan({ ...saved, decisions: planOf(plan.id)?.decisions ?? saved.decisions });
  };

  const retries = new Map<() => Promise<void>, ReturnType<typeof setTimeout>>();

  /** Tries again by itself where the server, or what it writes to, may come back. */
  const retryLater = (error: unknown, save: () => Promise<void>) => {
    const comesBack = error instanceof Refusal && (error.status === 0 || error.status === 429 || error.status >= 500);
    if (!comesBack) return;
    if (!get().troubled) set({ troubled: true, notice: `${error.title}. ${error.detail}` });
    clearTimeout(retries.get(save));
    retries.set(
      save,
      setTimeout(() => void save(), RETRY_MS),
    );
  };

  /** Takes up what was decided upon the open plan and never confirmed. */
  const takeUpUnsaved = () => {
    const plan = storedPlan(get());
    if (!plan) return;
    if (unconfirmed.has(plan.id)) {
      void savePlans();
      return;
    }
    const kept = unsavedOf(plan.id);
    if (!kept) return;
    const same = JSON.stringify(kept.decisions) === JSON.stringify(plan.decisions);
    if (same) forgetUnsaved(plan.id);
    else {
      // With the version that they were decided upon: never written over what somebody else saved since.
      putPlan({ ...plan, ...kept });
      unconfirmed.add(plan.id);
      const theirs = kept.version === plan.version ? null : plan;
      set({
        saving: theirs ? 'failed' : 'saving',
        conflict: theirs,
        notice: 'Decisions that were never saved are here again.',
      });
      if (!theirs) void savePlans();
    }
  };

  const planOf = (id: string) => get().project?.plans.find((p) => p.id === id);

  /** Saves a plan as it stands; gives whether it is confirmed so. */
  const savePlan = async (sent: StoredPlan): Promise<Saving> => {
    keepUnsaved(sent);
    try {
      const saved = await api.savePlan(sent.id, sent.version, { decisions: sent.decisions });
      const mine = planOf(sent.id);
      if (mine) putPlan({ ...mine, version: saved.version, changedAt: saved.changedAt });
      tellTabs(saved);
      if (mine && mine.decisions !== sent.decisions) return 'saving';
      unconfirmed.delete(sent.id);
      // What was kept may have been decided later, in another tab or before another project was opened.
      if (JSON.stringify(unsavedOf(sent.id)?.decisions) === JSON.stringify(sent.decisions)) forgetUnsaved(sent.id);
      return 'saved';
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) {
        if (sent.id === get().planId) set({ conflict: error.current as StoredPlan });
        else if (!told.has(sent.id)) {
          told.add(sent.id);
          set({ notice: `“${sent.name}” was changed elsewhere too. Open it to choose what stays.` });
        }
      }
      retryLater(error, savePlans);
      return 'failed';
    }
  };

  /** Plans that were changed and aren't confirmed yet. The person may look at another by now. */
  const unconfirmed = new Set<string>();
  /** Of these, plans that aren't open and of which the person knows that somebody else changed them. */
  const told = new Set<string>();

  const savePlans = oneAtATime(async () => {
    clearTimeout(retries.get(savePlans));
    const outcomes = new Set<Saving>();
    for (const id of [...unconfirmed]) {
      const plan = planOf(id);
      if (!plan) unconfirmed.delete(id);
      else if (get().conflict?.id === id) outcomes.add('failed');
      else {
        set({ saving: 'saving' });
        outcomes.add(await savePlan(plan));
      }
    }
    if (outcomes.has('failed')) set({ saving: 'failed' });
    else if (unconfirmed.size > 0) set({ saving: 'saving' });
    else {
      const again = get().troubled;
      set({
        saving: 'saved',
        troubled: false,
        ...(again ? { notice: 'The server answers again; everything is saved.' } : {}),
      });
    }
  });

  /** Of a plan, mine or theirs was chosen: there is nothing to save any more. */
  const settle = (id: string) => {
    unconfirmed.delete(id);
    told.delete(id);
    forgetUnsaved(id);
    set({ conflict: null, saving: unconfirmed.size > 0 ? get().saving : 'saved' });
  };

  /** Saves the corrections as they stand; where somebody else was faster, theirs are shown and the steps forgotten. */
  const saveAmendments = oneAtATime(async () => {
    clearTimeout(retries.get(saveAmendments));
    const { project } = get();
    if (!project) return;
    set({ savingAmendments: 'saving' });
    try {
      const { version } = await api.saveAmendments(project.id, project.amended);
      putAmended(project.id, (mine) => ({ ...mine, version }));
      set({ savingAmendments: 'saved' });
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) {
        putAmended(project.id, () => error.current as ProjectView['amended']);
        const forget = (steps: Step[]) => steps.filter((s) => s.of !== 'reading');
        set({
          savingAmendments: 'saved',
          done: forget(get().done),
          undone: forget(get().undone),
          notice: error.detail,
        });
      } else {
        set({ savingAmendments: 'failed' });
        retryLater(error, saveAmendments);
      }
    }
  });

  const putAmended = (projectId: string, next: (mine: ProjectView['amended']) => ProjectView['amended']) => {
    const { project } = get();
    if (project?.id === projectId) set({ project: { ...project, amended: next(project.amended) } });
  };

  return {
    project: null,
    app: null,
    planId: null,
    route: '/',
    linkId: LINKS[0].id,
    deviceId: DEVICES[0].id,
    cache: 'empty',
    selection: null,
    done: [],
    undone: [],
    saving: 'saved',
    savingAmendments: 'saved',
    troubled: false,
    notice: null,
    conflict: null,

    close() {
      set({ project: null, app: null, planId: null, selection: null, done: [], undone: [], conflict: null });
    },
    open(project, app, wished) {
      unconfirmed.clear();
      told.clear();
      const plan =
        wished.planId === 'baseline'
          ? null
          : (project.plans.find((p) => p.id === wished.planId) ?? project.plans[0] ?? null);
      set({
        project,
        app,
        planId: plan?.id ?? null,
        route: app.routes.find((r) => r.pattern === wished.route)?.pattern ?? app.routes[0]?.pattern ?? '',
        linkId: linkOf(wished.linkId ?? '').id,
        deviceId: deviceOf(wished.deviceId ?? '').id,
        cache: CACHE_STATES.find((c) => c === wished.cache) ?? 'empty',
        selection: null,
        done: [],
        undone: [],
        conflict: null,
        saving: 'saved',
        savingAmendments: 'saved',
      });
      if (wished.route && app.routes.length > 0 && !app.routes.some((r) => r.pattern === wished.route))
        set({ notice: `${project.name} has no route ${wished.route}; ${get().route} is shown.` });
      takeUpUnsaved();
    },
    choose(values) {
      set(values);
    },
    choosePlan(id) {
      const keep = (steps: Step[]) => steps.filter((s) => s.of === 'reading');
      set({ planId: id, done: keep(get().done), undone: keep(get().undone), conflict: null });
      takeUpUnsaved();
    },
    decide(decisions, words) {
      const plan = storedPlan(get());
      if (!plan) return;
      const next = decisions.reduce<Plan>(withDecision, plan);
      step(words ?? decisions.map(decisionWords).join(', '), next.decisions);
    },
    withdraw(subjects, words) {
      const plan = storedPlan(get());
      if (!plan) return;
      const next = subjects.reduce<Plan>(withoutSubject, plan);
      step(words, next.decisions);
    },
    amend(after, words) {
      const before = get().project?.amended.amendments;
      if (!before) return;
      push({ of: 'reading', words, before, after });
      correct(after);
    },
    undo() {
      const last = get().done.at(-1);
      if (!last) return;
      set({ done: get().done.slice(0, -1), undone: [...get().undone, last] });
      go(last, 'before');
    },
    redo() {
      const last = get().undone.at(-1);
      if (!last) return;
      set({ undone: get().undone.slice(0, -1), done: [...get().done, last] });
      go(last, 'after');
    },
    async addPlan(name, decisions, basedOn) {
      const { project } = get();
      if (!project) return;
      const plan = await api.createPlan(project.id, name, decisions, basedOn);
      if (get().project?.id !== project.id) return;
      putPlan(plan);
      get().choosePlan(plan.id);
    },
    async describePlan(values) {
      const plan = storedPlan(get());
      if (!plan) return;
      const before = { name: plan.name, description: plan.description };
      const after = { ...before, ...values };
      await saveDescription(plan.id, after);
      const words = after.name === before.name ? `describe “${before.name}”` : `rename to “${after.name}”`;
      if (get().planId === plan.id) push({ of: 'description', words, planId: plan.id, before, after });
    },
    async removePlan() {
      const { project } = get();
      const plan = storedPlan(get());
      if (!project || !plan) return;
      await api.removePlan(plan.id);
      const open = get().project;
      if (open?.id !== project.id) return;
      settle(plan.id);
      const plans = open.plans.filter((p) => p.id !== plan.id);
      set({ project: { ...open, plans } });
      followOrigin(plan.name, null);
      get().choosePlan(plans[0]?.id ?? null);
    },
    takeFromTab(plan) {
      const mine = get().project?.plans.find((p) => p.id === plan.id);
      if (!mine || mine.version >= plan.version || get().saving !== 'saved') return;
      putPlan(plan);
      if (get().planId !== plan.id) return;
      const keep = (steps: Step[]) => steps.filter((s) => s.of === 'reading');
      set({ done: keep(get().done), undone: keep(get().undone), notice: `“${plan.name}” was changed in another tab.` });
    },
    takeTheirs() {
      const { conflict } = get();
      if (!conflict) return;
      putPlan(conflict);
      settle(conflict.id);
      set({ done: [], undone: [] });
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
      const { decisions } = planOf(mine.id) ?? mine;
      putPlan(conflict);
      settle(conflict.id);
      putPlan({ ...copy, decisions });
      get().choosePlan(copy.id);
      if (decisions !== mine.decisions) change(decisions);
    },
    async saveNow() {
      await Promise.all([savePlans(), get().savingAmendments === 'failed' ? saveAmendments() : null]);
    },
  };
});

type PlanState = Pick<Workbench, 'project' | 'planId'>;

/** The plan that is open, as stored; null for the baseline. */
export function storedPlan({ project, planId }: PlanState): StoredPlan | null {
  return project?.plans.find((p) => p.id === planId) ?? null;
}

export function usePlan(): Plan {
  return useWorkbench((s) => storedPlan(s)) ?? BASELINE;
}

/** The conditions that are chosen; the same object until one of them changes. */
export function useConditions(): Conditions {
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  return useMemo(() => ({ link: linkOf(linkId), device: deviceOf(deviceId), cache }), [linkId, deviceId, cache]);
}
