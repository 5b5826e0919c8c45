'use client';

import { type KeyboardEvent, useState } from 'react';
import { useDragged } from './dragged.ts';
import { keepInMap, keptMap } from './kept-map.ts';

/** How narrow and how wide a column can be made, and by how much a key moves its edge, in px. */
const LEAST = 40;
const MOST = 1200;
const STEP = 16;

/** Where widths of columns are kept. */
export const COLUMN_WIDTHS = 'yokeline columns';

export interface ColumnWidth {
  /** In px; null: as wide as it is by itself. */
  width: number | null;
  /** `done`: its edge rests there, so that it is remembered; null: as wide as it is by itself again. */
  setWidth: (width: number | null, done: boolean) => void;
}

/** The width that a person gives a column; remembered in this browser by the names of the list and the column. */
export function useColumnWidth(list: string, column: string): ColumnWidth {
  const name = `${list}: ${column}`;
  const [width, setState] = useState(() => keptColumnWidth(name));
  return {
    width,
    setWidth(next, done) {
      const kept = next === null ? null : Math.round(Math.max(LEAST, Math.min(MOST, next)));
      setState(kept);
      if (done) keepInMap(COLUMN_WIDTHS, name, kept);
    },
  };
}

/** What a column was given before; null where nothing was, or what is kept is no width. */
export function keptColumnWidth(name: string): number | null {
  const width = keptMap(COLUMN_WIDTHS)[name];
  return typeof width === 'number' && width >= LEAST && width <= MOST ? width : null;
}

/**
 * The edge of a column that is dragged to make it wider or narrower; a double click sets it back. It lies in the head, at its right or, where the
 * column to the left takes what is left over, at its left.
 */
export function ColumnEdge({ width, setWidth, at = 'right' }: ColumnWidth & { at?: 'left' | 'right' }) {
  const dragging = useDragged<HTMLSpanElement>({
    begin: headWidth,
    grows: at === 'right' ? 1 : -1,
    moved: (next) => setWidth(next, false),
    rested: () => setWidth(width, true),
    reset: () => setWidth(null, true),
  });
  return (
    <span
      aria-hidden="true"
      data-column-edge
      title="Drag to make the column wider or narrower; a double click sets it back"
      {...dragging}
      className={`absolute inset-y-0 z-10 w-2 cursor-col-resize touch-none hover:bg-mark ${at === 'right' ? '-right-1' : '-left-1'}`}
    />
  );
}

/** What keys do to the width of the column whose head has the focus: Alt with an arrow moves its edge, Alt with Home sets it back. */
export function columnKeys({ width, setWidth }: ColumnWidth): (event: KeyboardEvent<HTMLElement>) => void {
  return (event) => {
    if (!event.altKey) return;
    const here = width ?? headWidth(event.currentTarget);
    const to = { ArrowLeft: here - STEP, ArrowRight: here + STEP, Home: null }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    setWidth(to, true);
  };
}

/** How wide the head is in which something lies, in px. */
function headWidth(inside: HTMLElement): number {
  return inside.closest('[data-column]')?.getBoundingClientRect().width ?? LEAST;
}
