'use client';

import { create } from 'zustand';
import type { Plan } from '../../core/plan/types.ts';
import type { RehearsalState } from '../../server/rehearsal-jobs.ts';
import type { StoredRehearsal } from '../../store/rehearsals.ts';
import { api } from './api.ts';
import { useWorkbench } from './workbench.ts';

/** How a rehearsal is asked for, beside what is chosen. */
export interface RehearsalWishes {
  runs: number;
  address: string;
  data: string;
  /** The part that is acted on once the landing has come to rest, by its id; empty: nothing is done. */
  act: string;
  /** The baseline is run as well, so that what the plan gains is told. */
  withBaseline: boolean;
}

interface Rehearsals {
  projectId: string | null;
  mayRun: boolean;
  kept: readonly StoredRehearsal[];
  wishes: RehearsalWishes;
  running: RehearsalState | null;
  /** The plan that is run now, by its name. */
  of: string;
  /** The one that is looked at, by its id. */
  shown: string | null;
  trouble: string | null;
}

const NONE = { mayRun: false, kept: [], running: null, of: '', shown: null, trouble: null } as const;

/** Rehearsals of the open project. */
export const useRehearsals = create<Rehearsals>()(() => ({
  projectId: null,
  ...NONE,
  wishes: { runs: 3, address: '', data: '', act: '', withBaseline: true },
}));

const POLL_MS = 300;

/** Asks what is kept of a project. */
export async function loadRehearsals(projectId: string): Promise<void> {
  if (useRehearsals.getState().projectId !== projectId) useRehearsals.setState({ projectId, ...NONE });
  const { mayRun, kept } = await api.rehearsals(projectId);
  if (useRehearsals.getState().projectId === projectId) useRehearsals.setState({ mayRun, kept });
}

/** Rehearses plans one after the other, as chosen now; `allow`: the person lets the app’s code be run from now on. */
export async function rehearse(plans: readonly Plan[], allow: boolean): Promise<void> {
  const { project, route, linkId, deviceId, cache, saveNow } = useWorkbench.getState();
  if (!project) return;
  const { wishes } = useRehearsals.getState();
  useRehearsals.setState({ trouble: null });
  try {
    // What was corrected must be known where the app is read.
    await saveNow();
    for (const { name, decisions } of plans) {
      const { runs, address, data } = wishes;
      const act = useWorkbench
        .getState()
        .app?.routes.find((r) => r.pattern === route)
        ?.parts.some((p) => p.id === wishes.act && p.action);
      const asked = { name, decisions, route, link: linkId, device: deviceId, cache, runs };
      const more = {
        ...(address ? { address } : {}),
        ...(data ? { data } : {}),
        ...(act ? { act: wishes.act } : {}),
        ...(allow ? { allow } : {}),
      };
      const end = await followed(api.rehearse(project.id, { ...asked, ...more }), name);
      if (end.state === 'failed')
        throw new Error(end.problem ? `${end.problem.title}. ${end.problem.detail}` : 'It broke off.');
      await loadRehearsals(project.id);
      const [newest] = useRehearsals.getState().kept;
      useRehearsals.setState({ shown: newest?.id ?? null });
      if (end.stopping) break;
    }
  } catch (error) {
    useRehearsals.setState({ trouble: error instanceof Error ? error.message : String(error) });
  } finally {
    useRehearsals.setState({ running: null });
    await loadRehearsals(project.id).catch(() => {});
  }
}

async function followed(started: Promise<RehearsalState>, of: string): Promise<RehearsalState> {
  let state = await started;
  while (state.state === 'running') {
    useRehearsals.setState({ running: state, of });
    await new Promise((wake) => setTimeout(wake, POLL_MS));
    state = await api.rehearsal(state.id);
  }
  return state;
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
  await loadRehearsals(projectId);
}
