'use client';

import { create } from 'zustand';

const KEY = 'yokeline:standing';

function kept(): boolean {
  try {
    return localStorage.getItem(KEY) === 'hidden';
  } catch {
    return false;
  }
}

/** Whether the line that says where things stand is put away; kept for this browser. */
export const useStanding = create<{ hidden: boolean }>()(() => ({ hidden: false }));

/** Takes up what was chosen in this browser before. */
export function recallStanding(): void {
  useStanding.setState({ hidden: kept() });
}

export function hideStanding(hidden: boolean): void {
  useStanding.setState({ hidden });
  try {
    localStorage.setItem(KEY, hidden ? 'hidden' : 'shown');
  } catch {
    // Without storage the choice lasts as long as the page.
  }
}
