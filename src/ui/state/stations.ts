'use client';

import { create } from 'zustand';
import type { StationId } from '../../core/vocabulary/stations.ts';

/** The way to another station; the workbench sets it. */
export const useStations = create<{ go: (station: StationId) => void }>()(() => ({ go: () => {} }));

/** Shows another station. */
export function goTo(station: StationId): void {
  useStations.getState().go(station);
}
