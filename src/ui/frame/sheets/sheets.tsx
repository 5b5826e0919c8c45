'use client';

import type { ComponentType } from 'react';
import { later } from '../../parts/later.tsx';
import { type SheetId, useOpenSheet } from './open-sheet.ts';

const LOADS: Record<SheetId, () => Promise<ComponentType>> = {
  plan: () => import('./plan-sheet.tsx').then((m) => m.PlanSheet),
  conditions: () => import('./conditions-sheet.tsx').then((m) => m.ConditionsSheet),
  words: () => import('./words-sheet.tsx').then((m) => m.WordsSheet),
  keys: () => import('./shortcut-sheet.tsx').then((m) => m.ShortcutSheet),
};

const SHEETS = Object.fromEntries(Object.entries(LOADS).map(([id, load]) => [id, later(load)])) as Record<
  SheetId,
  ComponentType
>;

/** The sheet that lies open; the code of each is fetched with the first look at it, or ahead of that. */
export function Sheets() {
  const sheet = useOpenSheet((s) => s.sheet);
  if (!sheet) return null;
  const Sheet = SHEETS[sheet];
  return <Sheet />;
}

/** What fetches the code of the sheets, each by itself. */
export const SHEET_LOADS: readonly (() => Promise<unknown>)[] = Object.values(LOADS);
