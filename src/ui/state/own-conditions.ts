'use client';

import { create } from 'zustand';

/** Links and devices of own values that somebody has named, for this browser. */
export interface KeptConditions {
  links: readonly Kept[];
  devices: readonly Kept[];
}

export interface Kept {
  /** Spells out the values, as in addresses. */
  id: string;
  name: string;
}

const KEY = 'yokeline:conditions';
const NOTHING: KeptConditions = { links: [], devices: [] };

export const useKeptConditions = create<KeptConditions>()(() => NOTHING);

/** Takes up what was kept in this browser before; what can't be read counts as nothing. */
export function recallConditions(): void {
  try {
    const said: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}');
    const of = (key: keyof KeptConditions) => {
      const list = (said as Record<string, unknown> | null)?.[key];
      return Array.isArray(list) ? list.filter(isKept) : [];
    };
    useKeptConditions.setState({ links: of('links'), devices: of('devices') });
  } catch {
    useKeptConditions.setState(NOTHING);
  }
}

function isKept(value: unknown): value is Kept {
  const { id, name } = (value ?? {}) as Partial<Kept>;
  return typeof id === 'string' && id.startsWith('own') && typeof name === 'string' && name !== '';
}

/** Keeps values under a name, in place of others of that name or of the same values. */
export function keepConditions(kind: keyof KeptConditions, kept: Kept): void {
  const others = useKeptConditions.getState()[kind].filter((k) => k.id !== kept.id && k.name !== kept.name);
  change({ [kind]: [...others, kept] });
}

export function forgetConditions(kind: keyof KeptConditions, id: string): void {
  change({ [kind]: useKeptConditions.getState()[kind].filter((k) => k.id !== id) });
}

function change(next: Partial<KeptConditions>): void {
  useKeptConditions.setState(next);
  try {
    localStorage.setItem(KEY, JSON.stringify(useKeptConditions.getState()));
  } catch {
    // Without storage they last as long as the page.
  }
}

/** What a link or device is called: as somebody has named it, else by itself. */
export function nameOf(kept: readonly Kept[], { id, name }: { id: string; name: string }): string {
  return kept.find((k) => k.id === id)?.name ?? name;
}
