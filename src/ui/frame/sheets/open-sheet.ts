'use client';

import { create } from 'zustand';

/** Sheets that lie over every station: the open plan, link and device by their values, the words, the keys. */
export const SHEET_IDS = ['plan', 'conditions', 'words', 'keys'] as const;
export type SheetId = (typeof SHEET_IDS)[number];

/** Which sheet lies open. */
export const useOpenSheet = create<{ sheet: SheetId | null }>()(() => ({ sheet: null }));

export function openSheet(sheet: SheetId): void {
  useOpenSheet.setState({ sheet });
}

export function closeSheet(): void {
  useOpenSheet.setState({ sheet: null });
}
