import type { StoredPlan } from '../../../store/plans.ts';
import type { Workbench } from './types.ts';

/** The state of the workbench, as its parts read and write it. */
export interface Bench {
  get(): Workbench;
  set(values: Partial<Workbench>): void;
}

/** The plan that is open, as stored; null for the baseline. */
export function storedPlan({ project, planId }: Pick<Workbench, 'project' | 'planId'>): StoredPlan | null {
  return project?.plans.find((p) => p.id === planId) ?? null;
}

/** A plan of the open project, as stored or as changed since. */
export function planOf({ get }: Bench, id: string): StoredPlan | undefined {
  return get().project?.plans.find((p) => p.id === id);
}

/** Puts a plan in the place of the one with its id; plans are listed by their names. */
export function putPlan({ get, set }: Bench, plan: StoredPlan): void {
  const { project } = get();
  if (!project) return;
  const others = project.plans.filter((p) => p.id !== plan.id);
  set({ project: { ...project, plans: [...others, plan].sort((a, b) => (a.name < b.name ? -1 : 1)) } });
}

/** Plans that began as a copy follow the name of their origin, as they do in the store. */
export function followOrigin({ get, set }: Bench, from: string, to: string | null): void {
  const { project } = get();
  if (!project || from === to) return;
  const plans = project.plans.map((p) => (p.basedOn === from ? { ...p, basedOn: to } : p));
  set({ project: { ...project, plans } });
}
