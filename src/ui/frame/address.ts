'use client';

import { type RefObject, useEffect, useRef } from 'react';
import { readVisit, writeVisit } from '../../core/visits/notation.ts';
import { CACHE_STATES } from '../../core/vocabulary/cache-states.ts';
import { isStation, type StationId } from '../../core/vocabulary/stations.ts';
import { wishesOf } from '../../worker/choice.ts';
import { useCompareChoice } from '../state/compare.ts';
import { FIRST_HANDOFF, useHandoffPage } from '../state/handoff-page.ts';
import { FIRST_SPLIT, useSplitPage } from '../state/split-page.ts';
import { BEGIN_ANEW, useOpenPage } from '../state/station-page.ts';
import { useStations } from '../state/stations.ts';
import { useVisitChoice } from '../state/visit.ts';
import { telling } from '../state/workbench/notices.ts';
import type { Selection } from '../state/workbench/types.ts';
import { useWorkbench } from '../state/workbench.ts';

/**
 * Keeps the address of the page in step with what is chosen, so that it can be kept and sent on. Another station, plan or
 * route is a step in the browser's history; back and forward choose what was chosen then.
 */
export function useAddress(projectId: string, station: StationId, loaded: boolean): void {
  const planId = useWorkbench((s) => s.planId);
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const selection = useWorkbench((s) => s.selection);
  const visit = useVisitChoice();
  const handoff = useHandoffPage((s) => s.page);
  const compare = useCompareChoice();
  const split = useSplitPage((s) => s.page);
  const open = useOpenPage();
  const step = useRef<string | null>(null);
  const wentBack = useRef(false);

  useWayBack(projectId, wentBack);
  useEffect(() => {
    if (!loaded) return;
    const wishes = new URLSearchParams({ route, link: linkId, device: deviceId, cache, plan: planId ?? 'baseline' });
    if (selection) wishes.set('chosen', chosenWords(selection));
    if (station === 'visits') {
      if (visit.page !== 'one') wishes.set('page', visit.page);
      if (visit.script) wishes.set('visit', writeVisit(visit.script));
      if (visit.step !== null) wishes.set('moment', String(visit.step + 1));
    }
    if (station === 'split' && split !== FIRST_SPLIT) wishes.set('page', split);
    if (open.station === station && open.page !== null) wishes.set('page', open.page);
    if (station === 'handoff' && handoff !== FIRST_HANDOFF) wishes.set('page', handoff);
    if (station === 'compare') {
      if (compare.page !== 'figures') wishes.set('page', compare.page);
      for (const name of compare.plans ?? []) wishes.append('with', name);
      for (const { link, device, cache: kept } of compare.more) wishes.append('under', `${link}/${device}/${kept}`);
    }
    const address = `/p/${projectId}/${station}?${wishes}`;
    const here = JSON.stringify([station, planId, route]);
    const isStep = step.current !== null && step.current !== here && !wentBack.current;
    step.current = here;
    wentBack.current = false;
    if (isStep) history.pushState(null, '', address);
    else history.replaceState(null, '', address);
  }, [
    projectId,
    station,
    loaded,
    planId,
    route,
    linkId,
    deviceId,
    cache,
    selection,
    visit,
    handoff,
    compare,
    split,
    open,
  ]);
}

/** Back and forward choose what was chosen then, which is noted so that it is no step of its own. */
function useWayBack(projectId: string, wentBack: RefObject<boolean>): void {
  useEffect(() => {
    const onBack = () => {
      const found = /^\/p\/([^/]+)\/([^/]+)/.exec(location.pathname);
      if (found?.[1] !== projectId || !isStation(found[2])) return;
      wentBack.current = true;
      useStations.getState().go(found[2]);
      takeWishes(location.search);
      const { planId: wished, ...values } = wishesOf(location.search);
      const given = Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined));
      const { planId: open, choose, choosePlan } = useWorkbench.getState();
      choose({ ...given, selection: selectionOf(location.search) });
      const next = wished === 'baseline' ? null : wished;
      if (next !== open) choosePlan(next);
    };
    addEventListener('popstate', onBack);
    return () => removeEventListener('popstate', onBack);
  }, [projectId, wentBack]);
}

function chosenWords(selection: NonNullable<Selection>): string {
  switch (selection.kind) {
    case 'import':
      return `import:${selection.key}`;
    case 'chunk':
      return `chunk:${selection.id}`;
    case 'split point':
      return `split point:${selection.module}`;
    case 'request':
      return `request:${selection.address}`;
  }
}

/** What an address chooses of the app; null for what it doesn't know. */
export function selectionOf(search: string): Selection {
  const said = new URLSearchParams(search).get('chosen') ?? '';
  const [, kind, name] = /^(import|chunk|split point|request):(.+)$/s.exec(said) ?? [];
  switch (kind) {
    case 'import':
      return { kind, key: name };
    case 'chunk':
      return { kind, id: name };
    case 'split point':
      return { kind, module: name };
    case 'request':
      return { kind, address: name, chunk: null };
    default:
      return null;
  }
}

/** Takes up what an address says of single stations: pages, a visit, plans and conditions that are compared. */
export function takeWishes(search: string): void {
  const wishes = new URLSearchParams(search);
  const [, station] = /^\/p\/[^/]+\/([^/]+)/.exec(location.pathname) ?? [];
  const page = wishes.get('page');
  useHandoffPage.setState({ page: station === 'handoff' && page ? page : FIRST_HANDOFF });
  if (station === 'split') useSplitPage.setState({ page: page ?? FIRST_SPLIT });
  const opened = BEGIN_ANEW.find((id) => id === station) ?? null;
  useOpenPage.setState({ station: opened, page: opened && page });
  if (station === 'compare')
    useCompareChoice.setState({
      page: page ?? 'figures',
      plans: wishes.has('with') ? wishes.getAll('with') : null,
      more: wishes.getAll('under').flatMap((said) => {
        const [link, device, kept] = said.split('/');
        const cache = CACHE_STATES.find((c) => c === kept);
        return link && device && cache ? [{ link, device, cache }] : [];
      }),
    });
  takeVisitWish(wishes);
}

/** The visit that an address asks for; one that can't be read is told, and the typical one stands in. */
function takeVisitWish(wishes: URLSearchParams): void {
  const said = wishes.get('visit');
  const moment = wishes.get('moment');
  const step = moment !== null && /^\d+$/.test(moment) ? Number(moment) - 1 : null;
  const page = wishes.get('page') === 'all' ? 'all' : 'one';
  try {
    useVisitChoice.setState({ script: said === null ? null : readVisit(said), step, page });
  } catch (error) {
    useVisitChoice.setState({ script: null, step: null, page });
    useWorkbench.setState((s) =>
      telling(s, `The visit in the address can’t be read. ${error instanceof Error ? error.message : ''}`),
    );
  }
}
