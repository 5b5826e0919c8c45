'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { FollowEvent } from '../../server/following.ts';
import { analyst } from '../../worker/client.ts';
import type { Since } from '../../worker/services/changes.ts';
import { api } from './api.ts';
import { takeNewest } from './open-project.ts';
import { telling } from './workbench/notices.ts';
import { useWorkbench } from './workbench.ts';

/** What happened last to the folder of the open project; `asked`: nothing, but the person wants to compare. */
export type LastEvent = Extract<FollowEvent, { kind: 'changed' | 'same' | 'broken' | 'trouble' }> | { kind: 'asked' };

interface FollowState {
  /** Of which project. */
  of: string | null;
  last: LastEvent | null;
  /** How often something was taken over: another number asks again what it did. */
  taken: number;
  since: Since;
  /** The last commit is being read. */
  comparing: boolean;
}

const NOTHING = { of: null, last: null, taken: 0, since: 'last save', comparing: false } as const satisfies FollowState;

export const useFollowing = create<FollowState>()(() => NOTHING);

/** Counts changes from there on; the last commit is read first. */
export async function compareSince(since: Since): Promise<void> {
  const { project } = useWorkbench.getState();
  if (!project) return;
  if (since === 'last commit') {
    useFollowing.setState({ comparing: true });
    try {
      await analyst().changes.takeCommit(`${location.origin}/api/projects/${project.id}/commit`);
    } finally {
      useFollowing.setState({ comparing: false });
    }
    if (useWorkbench.getState().project?.id !== project.id) return;
  }
  useFollowing.setState(({ last, taken }) => ({
    ...{ of: project.id, since, taken: taken + 1 },
    last: last?.kind === 'changed' || last?.kind === 'same' ? last : { kind: 'asked' },
  }));
}

/** Nothing is said of the folder any more, until something happens to it again. */
export function hideLast(): void {
  useFollowing.setState({ last: null });
}

/** Keeps the open project in step with its folder while somebody looks at the page. */
export function useFollow(): void {
  const id = useWorkbench((s) => s.project?.id);
  const follows = useWorkbench((s) => s.project?.follows === true && s.project.folder !== null);
  useEffect(() => {
    useFollowing.setState({ ...NOTHING, of: id ?? null });
    if (!id || !follows) return;
    let source: EventSource | null = null;
    // Browsers open few connections to one server: pages that nobody looks at don’t hold one.
    const look = () => {
      const seen = document.visibilityState === 'visible';
      if (seen && !source) source = listen(id);
      else if (!seen) {
        source?.close();
        source = null;
      }
    };
    look();
    document.addEventListener('visibilitychange', look);
    return () => {
      document.removeEventListener('visibilitychange', look);
      source?.close();
    };
  }, [id, follows]);
}

function listen(id: string): EventSource {
  const source = new EventSource(`/api/projects/${id}/changes`);
  source.onmessage = ({ data }: MessageEvent<string>) => {
    hear(id, JSON.parse(data) as FollowEvent).catch((error: Error) =>
      useWorkbench.setState((s) => telling(s, `What was saved couldn’t be taken over: ${error.message}`)),
    );
  };
  return source;
}

async function hear(id: string, event: FollowEvent): Promise<void> {
  const { project } = useWorkbench.getState();
  if (project?.id !== id) return;
  switch (event.kind) {
    case 'following':
      if (event.snapshotId !== project.snapshotId) await taken(id, event.snapshotId);
      return;
    case 'changed':
      await taken(id, event.snapshotId);
      break;
    case 'same':
      // What is there as it was read before needn’t be said.
      if (event.saved.length === 0) return;
      break;
    case 'broken':
    case 'trouble':
      break;
    case 'plans':
      if (event.taken) await takePlans(id);
      for (const words of event.conflicts) useWorkbench.setState((s) => telling(s, words));
      return;
    case 'plans trouble':
      useWorkbench.setState((s) => telling(s, event.message));
      return;
    default:
      event satisfies never;
  }
  if (useFollowing.getState().of === id) useFollowing.setState({ last: event });
}

async function taken(id: string, snapshotId: string): Promise<void> {
  await takeNewest(id, snapshotId);
  if (useFollowing.getState().of === id) useFollowing.setState((s) => ({ taken: s.taken + 1 }));
}

const THE_FILE = 'in the file beside the code';

/** Takes plans, limits and corrections as they are stored now; what isn't saved yet here stays, and meets them when it is. */
async function takePlans(id: string): Promise<void> {
  const { plans: stored, amended } = await api.project(id);
  if (useWorkbench.getState().project?.id !== id) return;
  for (const plan of stored) useWorkbench.getState().takeFromTab(plan, THE_FILE);
  useWorkbench.setState(({ project, planId, saving, savingAmendments }) => {
    if (!project) return {};
    const mine = new Map(project.plans.map((p) => [p.id, p]));
    const isOpen = (plan: { id: string }) => plan.id === planId && saving !== 'saved';
    const plans = stored.map((p) => {
      const own = mine.get(p.id);
      return own && (own.version >= p.version || isOpen(own)) ? own : p;
    });
    const isNewer = amended.version > project.amended.version && savingAmendments === 'saved';
    return {
      project: { ...project, plans, amended: isNewer ? amended : project.amended },
      planId: planId === null || plans.some((p) => p.id === planId) ? planId : (plans[0]?.id ?? null),
    };
  });
}

/** Keeps the open project's plans in a file beside its code from now on. */
export async function keepPlansBeside(): Promise<string> {
  const { project, saveNow } = useWorkbench.getState();
  if (!project) return '';
  await saveNow();
  const { taken, conflicts } = await api.keepPlans(project.id);
  if (taken) await takePlans(project.id);
  return ['Plans, limits and corrections are kept beside the code, in yokeline.plan.json.', ...conflicts].join(' ');
}

/** Has the open project kept in step with its folder, or not any more. */
export async function setFollows(follows: boolean): Promise<void> {
  const { project } = useWorkbench.getState();
  if (!project) return;
  await api.follow(project.id, follows);
  useWorkbench.setState((s) => (s.project?.id === project.id ? { project: { ...s.project, follows } } : {}));
}
