'use client';

import { create } from 'zustand';
import type { StationId } from '../frame/station-list.ts';

/** The way to another station, for whoever isn't handed one; the workbench sets it. */
export const useStations = create<{ go: (station: StationId) => void }>()(() => ({ go: () => {} }));
