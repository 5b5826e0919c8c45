'use client';

import { useEffect } from 'react';
import type { CacheState } from '../../core/sim/conditions.ts';
import { useWorkbench } from '../state/workbench.ts';
import type { StationId } from './station-list.ts';

/** Keeps the address of the page in step with what is chosen, so that it can be kept and sent on. */
export function useAddress(projectId: string, station: StationId, loaded: boolean): void {
  const planId = useWorkbench((s) => s.planId);
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  useEffect(() => {
    if (!loaded) return;
    const wishes = new URLSearchParams({ route, link: linkId, device: deviceId, cache, plan: planId ?? 'baseline' });
    history.replaceState(null, '', `/p/${projectId}/${station}?${wishes}`);
  }, [projectId, station, loaded, planId, route, linkId, deviceId, cache]);
}

export function wishesOf(search: string) {
  const wishes = new URLSearchParams(search);
  const read = (name: string) => wishes.get(name) ?? undefined;
  return {
    planId: read('plan') ?? null,
    route: read('route'),
    linkId: read('link'),
    deviceId: read('device'),
    cache: read('cache') as CacheState | undefined,
  };
}
