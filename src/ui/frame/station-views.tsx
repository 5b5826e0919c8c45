'use client';

import type { ComponentType } from 'react';
import type { StationId } from '../../core/vocabulary/stations.ts';
import { later } from '../parts/later.tsx';
import { Message } from '../parts/message.tsx';

interface StationView {
  /** Fetches its code: with the first look at it, and ahead of that once nothing else is to be done. */
  load: () => Promise<ComponentType>;
  /** What an app has to have, so that there is something to show. */
  needs: 'nothing' | 'routes' | 'routes and modules';
}

const VIEWS: Record<StationId, StationView> = {
  inventory: {
    load: () => import('../stations/inventory/inventory-station.tsx').then((m) => m.InventoryStation),
    needs: 'nothing',
  },
  split: { load: () => import('../stations/split/split.tsx').then((m) => m.Split), needs: 'routes and modules' },
  'load-sheet': {
    load: () => import('../stations/load-sheet/load-sheet-station.tsx').then((m) => m.LoadSheetStation),
    needs: 'routes',
  },
  startup: { load: () => import('../stations/startup/startup.tsx').then((m) => m.Startup), needs: 'routes' },
  visits: { load: () => import('../stations/visits/visits-station.tsx').then((m) => m.Visits), needs: 'routes' },
  advice: { load: () => import('../stations/advice/advice-station.tsx').then((m) => m.AdviceStation), needs: 'routes' },
  compare: {
    load: () => import('../stations/compare/compare-station.tsx').then((m) => m.CompareStation),
    needs: 'routes',
  },
  handoff: {
    load: () => import('../stations/handoff/handoff-station.tsx').then((m) => m.HandoffStation),
    needs: 'routes',
  },
};

const waiting = () => <Message title="Opening the station">Its code is on the way.</Message>;

/** What a station shows, and what an app has to have for it. */
export const STATION_VIEWS = Object.fromEntries(
  Object.entries(VIEWS).map(([id, { load, needs }]) => [id, { needs, View: later(load, waiting) }]),
) as Record<StationId, { needs: StationView['needs']; View: ComponentType }>;

type Load = () => Promise<unknown>;

/** Fetches what may be looked at next, one after the other, while nothing else is to be done: `first`, the stations, `last`. */
export function fetchAhead(first: readonly Load[], last: readonly Load[]): void {
  const rest = [...first, ...Object.values(VIEWS).map((view) => view.load), ...last];
  const next = () => {
    // What can't be fetched now is fetched when it is looked at.
    rest.shift()?.().then(whenIdle, whenIdle);
  };
  const whenIdle = () => {
    if ('requestIdleCallback' in window) requestIdleCallback(next);
    else setTimeout(next, 200);
  };
  whenIdle();
}
