'use client';

import { type CSSProperties, type KeyboardEvent, useState } from 'react';
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

/** The widths that a person gives columns of a list; remembered in this browser by the names of the list and the column. `columns`: always the same ones. */
export function useColumnWidths<Column extends string>(
  list: string,
  columns: readonly Column[],
): Record<Column, ColumnWidth> {
  const [given, setGiven] = useState(
    () =>
      Object.fromEntries(columns.map((c) => [c, keptColumnWidth(nameOf(list, c))])) as Record<Column, number | null>,
  );
  const widthOf = (column: Column): ColumnWidth => ({
    width: given[column],
    setWidth(next, done) {
      const kept = next === null ? null : Math.round(Math.max(LEAST, Math.min(MOST, next)));
      setGiven((all) => ({ ...all, [column]: kept }));
      if (done) keepInMap(COLUMN_WIDTHS, nameOf(list, column), kept);
    },
  });
  return Object.fromEntries(columns.map((c) => [c, widthOf(c)])) as Record<Column, ColumnWidth>;
}

/** The same for one column. */
export function useColumnWidth(list: string, column: string): ColumnWidth {
  return useColumnWidths(list, [column])[column];
}

const nameOf = (list: string, column: string) => `${list}: ${column}`;

/** What a column was given before; null where nothing was, or what is kept is no width. */
export function keptColumnWidth(name: string): number | null {
  const width = keptMap(COLUMN_WIDTHS)[name];
  return typeof width === 'number' && width >= LEAST && width <= MOST ? width : null;
}

type Side = 'left' | 'right';

/**
 * The edge of a column that is dragged to make it wider or narrower; a double click sets it back. It lies in the head, at its right or, where the
 * column to the left takes what is left over, at its left. `name`: of a column whose head is nothing that keys go to, so that they go to its edge.
 */
export function ColumnEdge({ width, setWidth, at = 'right', name }: ColumnWidth & { at?: Side; name?: string }) {
  const dragging = useDragged<HTMLSpanElement>({
    begin: headWidth,
    grows: at === 'right' ? 1 : -1,
    moved: (next) => setWidth(next, false),
    rested: () => setWidth(width, true),
    reset: () => setWidth(null, true),
  });
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const here = width ?? headWidth(event.currentTarget);
    const step = at === 'right' ? STEP : -STEP;
    const to = { ArrowLeft: here - step, ArrowRight: here + step, Home: MOST, End: LEAST, Enter: null }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    setWidth(to, true);
  };
  const forKeys =
    name === undefined
      ? ({ 'aria-hidden': true } as const)
      : ({
          role: 'separator',
          'aria-orientation': 'vertical',
          'aria-label': `Width of the column ${name}`,
          'aria-valuenow': width ?? LEAST,
          'aria-valuetext': width === null ? 'as wide as usual' : `${width} px`,
          'aria-valuemin': LEAST,
          'aria-valuemax': MOST,
          tabIndex: 0,
          onKeyDown,
        } as const);
  return (
    <span
      {...forKeys}
      data-column-edge
      title="Drag to make the column wider or narrower; a double click sets it back"
      {...dragging}
      className={`absolute inset-y-0 z-10 w-2 cursor-col-resize touch-none outline-none hover:bg-mark focus-visible:bg-ink ${at === 'right' ? '-right-1' : '-left-1'}`}
    />
  );
}

/** The head of a column of a grid by which nothing is put in order; the first column takes what the others leave. */
export function PlainCell({
  words,
  column,
  at = 'left',
  className = '',
}: {
  words: string;
  column: ColumnWidth;
  at?: Side;
  className?: string;
}) {
  return (
    <span data-column className={`relative min-w-0 ${className}`}>
      <ColumnEdge {...column} at={at} name={words} />
      <span className="block truncate">{words}</span>
    </span>
  );
}

/** Widths of the columns of a grid as variables of style, each under its name (`--column-size`). `usual`: as wide as they are where nobody gave them another width. */
export function columnStyle<Column extends string>(
  widths: Record<Column, ColumnWidth>,
  usual: Record<Column, string>,
): CSSProperties {
  const columns = Object.keys(usual) as Column[];
  return Object.fromEntries(
    columns.map((column) => {
      const { width } = widths[column];
      return [`--column-${column}`, width === null ? usual[column] : `${width}px`];
    }),
  );
}

/** The style of a head of a table that was given a width. */
export function givenWidth({ width }: ColumnWidth): { width: number; minWidth: number; maxWidth: number } | undefined {
  return width === null ? undefined : { width, minWidth: width, maxWidth: width };
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
