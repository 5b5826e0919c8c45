'use client';

import { create } from 'zustand';

const KEY = 'yokeline:guide';

interface Progress {
  /** `asked`: offered, nobody answered yet; `left`: put away, to be taken up again from the top bar. */
  state: 'unknown' | 'asked' | 'open' | 'left';
  step: number;
}

/** How far the guided path is; kept in the browser. */
export const useGuide = create<Progress>()(() => ({ state: 'unknown', step: 0 }));

/** Takes up where it was left; offers itself where it never was. */
export function recallGuide(): void {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Progress | null;
    const known = kept && (kept.state === 'open' || kept.state === 'left') && Number.isInteger(kept.step);
    useGuide.setState(known ? kept : { state: 'asked', step: 0 });
  } catch {
    useGuide.setState({ state: 'asked', step: 0 });
  }
}

export function setGuide(next: Progress): void {
  useGuide.setState(next);
  try {
    localStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // Without storage it is offered again next time.
  }
}
