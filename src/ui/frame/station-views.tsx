'use client';

import dynamic from 'next/dynamic';
import { Message } from '../parts/message.tsx';

const loading = () => <Message title="Opening the station">Its code is on the way.</Message>;

/** How each station's code is fetched: with the first look at it, and ahead of that once nothing else is to be done. */
const LOADS = {
  inventory: () => import('../stations/inventory/inventory-station.tsx').then((m) => m.InventoryStation),
  split: () => import('../stations/split/split.tsx').then((m) => m.Split),
  loadSheet: () => import('../stations/load-sheet/load-sheet-station.tsx').then((m) => m.LoadSheetStation),
  startup: () => import('../stations/startup/startup.tsx').then((m) => m.Startup),
  visits: () => import('../stations/visits/visits-station.tsx').then((m) => m.Visits),
  hints: () => import('../stations/hints/hints-station.tsx').then((m) => m.Hints),
  compare: () => import('../stations/compare/compare-station.tsx').then((m) => m.CompareStation),
  handoff: () => import('../stations/handoff/handoff-station.tsx').then((m) => m.HandoffStation),
};

export const InventoryStation = dynamic(LOADS.inventory, { ssr: false, loading });
export const Split = dynamic(LOADS.split, { ssr: false, loading });
export const LoadSheetStation = dynamic(LOADS.loadSheet, { ssr: false, loading });
export const Startup = dynamic(LOADS.startup, { ssr: false, loading });
export const Visits = dynamic(LOADS.visits, { ssr: false, loading });
export const Hints = dynamic(LOADS.hints, { ssr: false, loading });
export const CompareStation = dynamic(LOADS.compare, { ssr: false, loading });
export const HandoffStation = dynamic(LOADS.handoff, { ssr: false, loading });

/** Fetches what other stations need, one after the other, while nothing else is to be done. */
export function fetchStationsAhead(): void {
  const rest = Object.values(LOADS);
  const next = () => {
    const load = rest.shift();
    // What can't be fetched now is fetched when it is looked at.
    if (load) load().then(whenIdle, whenIdle);
  };
  const whenIdle = () => {
    if ('requestIdleCallback' in window) requestIdleCallback(next);
    else setTimeout(next, 200);
  };
  whenIdle();
}
