'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { Plan } from '../../core/plan/types.ts';
import { doableActs } from '../../core/rehearsals/acts.ts';
import { measuredOf } from '../../core/rehearsals/summary.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import type { RehearsalState } from '../../server/rehearsal-jobs.ts';
import type { KeptRehearsal } from '../../store/rehearsals.ts';
import { api } from './api.ts';
import { useWorkbench } from './workbench.ts';

/** How a rehearsal is asked for, beside what is chosen. */
export interface RehearsalWishes {
  runs: number;
  address: string;
  data: string;
  /** What is done once the landing has come to rest, one after the other: parts by their ids, routes that are moved to by their patterns. */
  acts: readonly string[];
  /** The baseline is run as well, so that what the plan gains is told. */
  withBaseline: boolean;
}

interface Rehearsals {
  projectId: string | null;
  mayRun: boolean;
  kept: readonly KeptRehearsal[];
  wishes: RehearsalWishes;
  /** What is being rehearsed, be it of another project. */
  running: RehearsalState | null;
  /** The one that is looked at, by its id. */
  shown: string | null;
  trouble: string | null;
}

const NONE = { mayRun: false, kept: [], running: null, shown: null, trouble: null } as const;

/** Rehearsals of the open project. */
export const useRehearsals = create<Rehearsals>()(() => ({
  projectId: null,
  ...NONE,
  wishes: { runs: 3, address: '', data: '', acts: [], withBaseline: true },
}));

const POLL_MS = 300;

/** Opens the rehearsals of a project; what is being run already is followed to its end. */
export async function openRehearsals(projectId: string): Promise<void> {
  if (useRehearsals.getState().projectId !== projectId) useRehearsals.setState({ projectId, ...NONE });
  const running = await load(projectId);
  if (!running || useRehearsals.getState().running) return;
  await followed(running);
  await load(projectId);
}

/** Asks what is kept of a project, unless another one is looked at by then; gives what is being run. */
async function load(projectId: string): Promise<RehearsalState | null> {
  const { mayRun, kept, running } = await api.rehearsals(projectId);
  if (useRehearsals.getState().projectId === projectId) useRehearsals.setState({ mayRun, kept });
  return running;
}

/** Rehearses plans one after the other, as chosen now; `allow`: the person lets the app’s code be run from now on. */
export async function rehearse(plans: readonly Plan[], allow: boolean): Promise<void> {
  const { project, app, route, linkId, deviceId, cache, saveNow } = useWorkbench.getState();
  if (!project) return;
  const { runs, address, data, acts: wished } = useRehearsals.getState().wishes;
  const acts = app ? doableActs(app, route, wished).map((a) => a.name) : [];
  const more = {
    ...(address ? { address } : {}),
    ...(data ? { data } : {}),
    ...(acts.length > 0 ? { acts } : {}),
    ...(allow ? { allow } : {}),
  };
  useRehearsals.setState({ trouble: null });
  try {
    // What was corrected must be known where the app is read.
    await saveNow();
    for (const { name, decisions } of plans) {
      const asked = { name, decisions, route, link: linkId, device: deviceId, cache, runs };
      const end = await followed(await api.rehearse(project.id, { ...asked, ...more }));
      if (end.problem) throw new Error(`${end.problem.title}. ${end.problem.detail}`);
      await load(project.id);
      const { projectId, kept } = useRehearsals.getState();
      if (projectId === project.id) useRehearsals.setState({ shown: kept[0]?.id ?? null });
      if (end.stopping) break;
    }
  } catch (error) {
    useRehearsals.setState({ trouble: error instanceof Error ? error.message : String(error) });
    // It may be that something else is being run.
    void openRehearsals(project.id).catch(() => {});
  }
}

/** Asks what is run how far it is, to its end. */
async function followed(started: RehearsalState): Promise<RehearsalState> {
  let state = started;
  try {
    while (state.state === 'running') {
      useRehearsals.setState({ running: state });
      await new Promise((wake) => setTimeout(wake, POLL_MS));
      state = await api.rehearsal(state.id);
    }
    return state;
  } finally {
    useRehearsals.setState({ running: null });
  }
}

/** Asks what runs to end with the runs that it has. */
export async function stopRehearsing(): Promise<void> {
  const { running } = useRehearsals.getState();
  if (running) useRehearsals.setState({ running: await api.stopRehearsal(running.id) });
}

export async function forgetRehearsal(id: string): Promise<void> {
  const { projectId } = useRehearsals.getState();
  if (!projectId) return;
  await api.forgetRehearsal(projectId, id);
  await load(projectId);
}

/** What was rehearsed of landings under plans as they are now; null where nothing was. */
export function useMeasured(): (plan: Plan, pattern: string, conditions: Conditions) => ReturnType<typeof measuredOf> {
  const projectId = useWorkbench((s) => s.project?.id);
  const snapshotId = useWorkbench((s) => s.project?.snapshotId) ?? '';
  const kept = useRehearsals((s) => (s.projectId === projectId ? s.kept : NONE.kept));
  useEffect(() => {
    // Without them figures are as predicted; whoever rehearses is told of the trouble there.
    if (projectId) openRehearsals(projectId).catch(() => {});
  }, [projectId]);
  return ({ decisions }, pattern, conditions) => measuredOf(kept, { snapshotId, decisions, pattern, conditions });
}
