'use client';

import { useEffect } from 'react';
import { create } from 'zustand';
import type { StationId } from '../../core/vocabulary/stations.ts';

/** The page that is open of a station which begins with its first one each time that it is gone to; null: that one. */
export const useOpenPage = create<{ station: StationId | null; page: string | null }>()(() => ({
  station: null,
  page: null,
}));

/** The open page of such a station, for its tabs; it stands in the address of the page as well. */
export function useStationPage(station: StationId): { page?: string; onPage: (page: string) => void } {
  const page = useOpenPage((s) => (s.station === station ? s.page : null));
  useEffect(
    () => () => {
      if (useOpenPage.getState().station === station) useOpenPage.setState({ station: null, page: null });
    },
    [station],
  );
  return { page: page ?? undefined, onPage: (next) => useOpenPage.setState({ station, page: next }) };
}
