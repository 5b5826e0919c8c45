'use client';

import { useEffect } from 'react';
import { STATION_IDS, STATIONS, type StationId } from '../../core/vocabulary/stations.ts';
import { hasOwnUndo, isTakenElsewhere } from '../parts/keys.ts';
import { useWorkbench } from '../state/workbench.ts';
import { openSheet } from './sheets/open-sheet.ts';
import { toggleTheme } from './theme.ts';

/** Keys that work everywhere, with what they do. */
export const SHORTCUTS: { keys: string; does: string }[] = [
  ...STATION_IDS.map((id) => ({ keys: STATIONS[id].key, does: `go to ${STATIONS[id].name}` })),
  { keys: '[  ]', does: 'route before, next route' },
  { keys: '↑  ↓', does: 'move through the rows; in the Load sheet and in Start and later ← → as well' },
  { keys: '←', does: 'Startup: go to what caused the request' },
  { keys: 'd', does: 'Split: detach or join what is chosen' },
  { keys: 'Space', does: 'Split and Findings: choose several together; Shift with ↑ ↓ or a click as well' },
  { keys: 'Alt ←  Alt →', does: 'a column narrower or wider, from its head' },
  { keys: '↵', does: 'Split: go into a split point, unfold a folder' },
  { keys: 'Shift F10', does: 'what can be done with the chosen row; the right button of the pointer as well' },
  { keys: 'o', does: 'Start and later: open the chosen package or folder' },
  { keys: 'p', does: 'Split: preload the chosen split point, or take it back' },
  { keys: '/', does: 'Split: find an import' },
  { keys: 'Ctrl K', does: 'find anything that can be done: stations, routes, plans, findings …' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: 'l', does: 'list the decisions of the plan' },
  { keys: 'c', does: 'link and device by their values' },
  { keys: 't', does: 'light or dark' },
  { keys: 'w', does: 'words, and what they mean' },
  { keys: '?', does: 'this list' },
];

const SINGLE_KEYS: Record<string, () => void> = {
  '?': () => openSheet('keys'),
  w: () => openSheet('words'),
  l: () => openSheet('plan'),
  c: () => openSheet('conditions'),
  t: toggleTheme,
  '[': () => stepRoute(-1),
  ']': () => stepRoute(1),
};

/** Installs the keys that work everywhere. */
export function useShortcuts(go: (station: StationId) => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { undo, redo } = useWorkbench.getState();
      if (event.ctrlKey || event.metaKey) {
        if (event.key.toLowerCase() !== 'z' || hasOwnUndo(event)) return;
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
        return;
      }
      if (event.altKey || isTakenElsewhere(event)) return;
      const station = STATION_IDS.find((id) => STATIONS[id].key === event.key);
      const does = station ? () => go(station) : SINGLE_KEYS[event.key];
      if (!does) return;
      // Else the letter lands in the first field of what it opens.
      event.preventDefault();
      does();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [go]);
}

function stepRoute(by: number): void {
  const { app, route, choose } = useWorkbench.getState();
  if (!app || app.routes.length === 0) return;
  const at = app.routes.findIndex((r) => r.pattern === route);
  const to = app.routes[(at + by + app.routes.length) % app.routes.length];
  choose({ route: to.pattern, selection: null });
}
