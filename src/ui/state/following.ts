'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { FollowEvent } from '../../server/following.ts';
import type { Since } from '../../worker/services/changes.ts';
import { api } from './api.ts';
import { takeNewest } from './open-project.ts';
import { telling } from './workbench/notices.ts';
import { useWorkbench } from './workbench.ts';

/** What happened last to the folder of the open project. */
export type LastEvent = Extract<FollowEvent, { kind: 'changed' | 'same' | 'broken' | 'trouble' }>;

interface FollowState {
  /** Of which project. */
  of: string | null;
  last: LastEvent | null;
  /** How often something was taken over: another number asks again what it did. */
  taken: number;
  since: Since;
}

const NOTHING = { of: null, last: null, taken: 0, since: 'last save' } as const satisfies FollowState;

export const useFollowing = create<FollowState>()(() => NOTHING);

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
    default:
      event satisfies never;
  }
  if (useFollowing.getState().of === id) useFollowing.setState({ last: event });
}

async function taken(id: string, snapshotId: string): Promise<void> {
  await takeNewest(id, snapshotId);
  if (useFollowing.getState().of === id) useFollowing.setState((s) => ({ taken: s.taken + 1 }));
}

/** Has the open project kept in step with its folder, or not any more. */
export async function setFollows(follows: boolean): Promise<void> {
  const { project } = useWorkbench.getState();
  if (!project) return;
  await api.follow(project.id, follows);
  useWorkbench.setState((s) => (s.project?.id === project.id ? { project: { ...s.project, follows } } : {}));
}
