import { create } from 'zustand';
import { copyText } from '../copy-text.ts';

/** Something that can be done with the thing of a row. */
export interface MenuItem {
  words: string;
  /** The key that does the same. */
  note?: string;
  run: () => void;
}

/** What can be done with one thing, in groups, and where that is told. */
export interface RowMenu {
  /** The thing in words. */
  of: string;
  groups: readonly (readonly MenuItem[])[];
  /** On the screen, in px. */
  x: number;
  y: number;
  /** What has the focus again afterwards. */
  back: Element | null;
}

export const useRowMenu = create<{ menu: RowMenu | null }>()(() => ({ menu: null }));

interface MenuEvent {
  clientX: number;
  clientY: number;
  button: number;
  preventDefault: () => void;
}

/**
 * Shows what can be done with a row: where the pointer is, or at the row itself where a key asks for it (whose event says no place that means
 * anything).
 */
export function openRowMenu(event: MenuEvent, row: Element | null, menu: Pick<RowMenu, 'of' | 'groups'>): void {
  event.preventDefault();
  const byPointer = event.button === 2;
  const box = row?.getBoundingClientRect();
  const at = byPointer || !box ? { x: event.clientX, y: event.clientY } : { x: box.left + 24, y: box.bottom };
  useRowMenu.setState({ menu: { ...menu, ...at, back: document.activeElement } });
}

/** Copies a text that belongs to the thing, such as its path. */
export function copying(what: string, text: string): MenuItem {
  return { words: `Copy ${what}`, run: () => void copyText(text, `Copied: ${text.length > 60 ? what : text}`) };
}
