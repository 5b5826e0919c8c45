'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { StationId } from '../../core/vocabulary/stations.ts';

/** Stations that begin with their first page each time that they are gone to. */
export const BEGIN_ANEW = ['advice', 'startup', 'inventory'] as const satisfies readonly StationId[];
type AnewStation = (typeof BEGIN_ANEW)[number];

/** The page that is open of such a station; null: its first one. */
export const useOpenPage = create<{ station: AnewStation | null; page: string | null }>()(() => ({
  station: null,
  page: null,
}));

/** The open page of such a station, for its tabs; it stands in the address of the page as well. */
export function useStationPage(station: AnewStation): { page?: string; onPage: (page: string) => void } {
  const page = useOpenPage((s) => (s.station === station ? s.page : null));
  useEffect(
    () => () => {
      if (useOpenPage.getState().station === station) useOpenPage.setState({ station: null, page: null });
    },
    [station],
  );
  return { page: page ?? undefined, onPage: (next) => useOpenPage.setState({ station, page: next }) };
}
