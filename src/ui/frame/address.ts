'use client';

import { useEffect } from 'react';
import type { CacheState } from '../../core/sim/conditions.ts';
import { readVisit, writeVisit } from '../../core/visits/notation.ts';
import { useVisitChoice } from '../state/visit.ts';
import { useWorkbench } from '../state/workbench.ts';
import type { StationId } from './station-list.ts';

/** Keeps the address of the page in step with what is chosen, so that it can be kept and sent on. */
export function useAddress(projectId: string, station: StationId, loaded: boolean): void {
  const planId = useWorkbench((s) => s.planId);
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const script = useVisitChoice((s) => s.script);
  const step = useVisitChoice((s) => s.step);
  const page = useVisitChoice((s) => s.page);
  useEffect(() => {
    if (!loaded) return;
    const wishes = new URLSearchParams({ route, link: linkId, device: deviceId, cache, plan: planId ?? 'baseline' });
    if (station === 'visits') {
      if (page !== 'one') wishes.set('page', page);
      if (script) wishes.set('visit', writeVisit(script));
      if (step !== null) wishes.set('moment', String(step + 1));
    }
    history.replaceState(null, '', `/p/${projectId}/${station}?${wishes}`);
  }, [projectId, station, loaded, planId, route, linkId, deviceId, cache, script, step, page]);
}

/** The visit that an address asks for; one that can't be read is told, and the typical one stands in. */
export function takeVisitWish(search: string): void {
  const wishes = new URLSearchParams(search);
  const said = wishes.get('visit');
  const moment = wishes.get('moment');
  const step = moment !== null && /^\d+$/.test(moment) ? Number(moment) - 1 : null;
  const page = wishes.get('page') === 'all' ? 'all' : 'one';
  try {
    useVisitChoice.setState({ script: said === null ? null : readVisit(said), step, page });
  } catch (error) {
    useVisitChoice.setState({ script: null, step: null, page });
    useWorkbench.setState({
      notice: `The visit in the address can’t be read. ${error instanceof Error ? error.message : ''}`,
    });
  }
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
