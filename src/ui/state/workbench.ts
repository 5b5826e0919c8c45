'use client';

import { create } from 'zustand';
import { decisionWords, withDecision, withoutSubject } from '../../core/plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../../core/plan/types.ts';
import { type CacheState, type Conditions, DEVICES, LINKS } from '../../core/sim/conditions.ts';
import type { ProjectView } from '../../server/projects.ts';
import type { StoredPlan } from '../../store/plans.ts';
import type { AppView } from '../../worker/analyst.ts';
import { api, Refusal } from './api.ts';

/** What is chosen anywhere and marked everywhere. */
export type Selection =
  | { kind: 'request'; address: string }
  | { kind: 'import'; key: string }
  | { kind: 'split point'; module: string }
  | null;

interface Step {
  words: string;
  before: Decision[];
  after: Decision[];
}

interface Workbench {
  project: ProjectView | null;
  app: AppView | null;
  planId: string | null;
  route: string;
  linkId: string;
  deviceId: string;
  cache: CacheState;
  selection: Selection;
  done: Step[];
  undone: Step[];
  saving: 'saved' | 'saving' | 'failed';
  /** The plan as somebody else left it, while ours differs. */
  conflict: StoredPlan | null;

  open(
    project: ProjectView,
    app: AppView,
    wished: Partial<Pick<Workbench, 'planId' | 'route' | 'linkId' | 'deviceId' | 'cache'>>,
  ): void;
  choose(change: Partial<Pick<Workbench, 'route' | 'linkId' | 'deviceId' | 'cache' | 'selection'>>): void;
  choosePlan(id: string | null): void;
  decide(decisions: Decision[], words?: string): void;
  withdraw(subjects: string[], words: string): void;
  undo(): void;
  redo(): void;
  addPlan(name: string, decisions: Decision[]): Promise<void>;
  takeTheirs(): void;
  keepMine(): Promise<void>;
  saveNow(): Promise<void>;
}

export const useWorkbench = create<Workbench>()((set, get) => {
  let pending = false;

  const putPlan = (plan: StoredPlan) => {
    const { project } = get();
    if (!project) return;
    const others = project.plans.filter((p) => p.id !== plan.id);
    set({ project: { ...project, plans: [...others, plan].sort((a, b) => (a.name < b.name ? -1 : 1)) } });
  };

  const change = (decisions: Decision[]) => {
    const plan = storedPlan(get());
    if (!plan) return;
    putPlan({ ...plan, decisions });
    void get().saveNow();
  };

  const step = (words: string, after: Decision[]) => {
    const plan = storedPlan(get());
    if (!plan) return;
    set({ done: [...get().done, { words, before: plan.decisions, after }], undone: [] });
    change(after);
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
    conflict: null,

    open(project, app, wished) {
      const plan =
        wished.planId === 'baseline'
          ? null
          : (project.plans.find((p) => p.id === wished.planId) ?? project.plans[0] ?? null);
      set({
        project,
        app,
        planId: plan?.id ?? null,
        route: app.routes.find((r) => r.pattern === wished.route)?.pattern ?? app.routes[0]?.pattern ?? '',
        linkId: LINKS.find((l) => l.id === wished.linkId)?.id ?? LINKS[0].id,
        deviceId: DEVICES.find((d) => d.id === wished.deviceId)?.id ?? DEVICES[0].id,
        cache: wished.cache === 'returning' ? 'returning' : 'empty',
        selection: null,
        done: [],
        undone: [],
        conflict: null,
        saving: 'saved',
      });
    },
    choose(values) {
      set(values);
    },
    choosePlan(id) {
      set({ planId: id, done: [], undone: [], conflict: null });
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
    undo() {
      const last = get().done.at(-1);
      if (!last) return;
      set({ done: get().done.slice(0, -1), undone: [...get().undone, last] });
      change(last.before);
    },
    redo() {
      const last = get().undone.at(-1);
      if (!last) return;
      set({ undone: get().undone.slice(0, -1), done: [...get().done, last] });
      change(last.after);
    },
    async addPlan(name, decisions) {
      const { project } = get();
      if (!project) return;
      const plan = await api.createPlan(project.id, name, decisions);
      putPlan(plan);
      get().choosePlan(plan.id);
    },
    takeTheirs() {
      const { conflict } = get();
      if (!conflict) return;
      putPlan(conflict);
      set({ conflict: null, done: [], undone: [], saving: 'saved' });
    },
    async keepMine() {
      const { conflict, project } = get();
      const mine = storedPlan(get());
      if (!conflict || !mine || !project) return;
      const names = new Set(project.plans.map((p) => p.name));
      let name = `${mine.name}, my copy`;
      for (let n = 2; names.has(name); n++) name = `${mine.name}, my copy ${n}`;
      putPlan(conflict);
      set({ conflict: null, saving: 'saved' });
      await get().addPlan(name, mine.decisions);
    },
    /** Saves the plan as it stands; changes made meanwhile are saved right after. */
    async saveNow() {
      if (get().saving === 'saving') {
        pending = true;
        return;
      }
      const sent = storedPlan(get());
      if (!sent || get().conflict) return;
      set({ saving: 'saving' });
      try {
        const saved = await api.savePlan(sent.id, sent.version, { decisions: sent.decisions });
        const mine = get().project?.plans.find((p) => p.id === sent.id);
        if (mine) putPlan({ ...mine, version: saved.version, changedAt: saved.changedAt });
        set({ saving: 'saved' });
      } catch (error) {
        const theirs = error instanceof Refusal && error.status === 409 ? error.current : undefined;
        set({ saving: 'failed', conflict: theirs ?? get().conflict });
      }
      if (pending) {
        pending = false;
        if (!get().conflict) await get().saveNow();
      }
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

export function conditionsOf({
  linkId,
  deviceId,
  cache,
}: Pick<Workbench, 'linkId' | 'deviceId' | 'cache'>): Conditions {
  return {
    link: LINKS.find((l) => l.id === linkId) ?? LINKS[0],
    device: DEVICES.find((d) => d.id === deviceId) ?? DEVICES[0],
    cache,
  };
}
