import type { StoredPlan } from '../../store/plans.ts';
import { api } from './api.ts';

type Told = { planId: string; version: number };

let channel: BroadcastChannel | null = null;

/** Tells the other tabs of this browser that a plan was saved. */
export function tellTabs({ id, version }: StoredPlan): void {
  channel?.postMessage({ planId: id, version } satisfies Told);
}

/** Hears what other tabs saved: `take` gets the plan as it is stored now, where `wanted` says that it is news here. */
export function hearTabs(wanted: (told: Told) => boolean, take: (plan: StoredPlan) => void): () => void {
  const own = new BroadcastChannel('yokeline');
  own.onmessage = ({ data }: MessageEvent<Told>) => {
    if (!wanted(data)) return;
    // A tab that can't fetch it learns of it when it saves.
    api.plan(data.planId).then(take, () => {});
  };
  channel = own;
  return () => {
    own.close();
    if (channel === own) channel = null;
  };
}
