'use client';

import { type KeyboardEvent, useMemo, useState } from 'react';
import { ColumnEdge, type ColumnWidth, columnKeys, useColumnWidth } from './columns.tsx';
import { keepInMap, keptMap } from './kept-map.ts';

/** By which column rows stand in order, and which way round. */
export interface Order<Column extends string> {
  by: Column;
  rising: boolean;
}

/** Lists whose order is remembered. */
export type OrderedList = 'copies' | 'modules' | 'packages' | 'route shares' | 'chunks';

/** What rows are put in order by: texts begin with a, figures with the largest. */
export type Values<Row, Column extends string> = Record<Column, (row: Row) => string | number>;

/**
 * Rows that are put in order by a column that a person chooses; chosen again, the other way round. Equal ones stay as they were. Where `values` stays
 * the same, they are put in order only when something else is asked: a long list is drawn anew with each step of the wheel. What was chosen is
 * remembered in this browser under the name of the list.
 */
export function useOrder<Row, Column extends string>(
  list: OrderedList,
  rows: readonly Row[],
  values: Values<Row, Column>,
  first: Column,
) {
  const rises = (column: Column) => rows.length > 0 && typeof values[column](rows[0]) === 'string';
  const [chosen, setChosen] = useState<Order<Column> | null>(() => rememberedOrder(list, values));
  const order: Order<Column> = chosen ?? { by: first, rising: rises(first) };
  const sortBy = (column: Column) => {
    const next = { by: column, rising: column === order.by ? !order.rising : rises(column) };
    setChosen(next);
    keepInMap(ORDERS, list, next);
  };
  const { by, rising } = order;
  const sorted = useMemo(() => inOrder(rows, values, { by, rising }), [rows, values, by, rising]);
  return { sorted, head: { list, order, onSort: sortBy } };
}

/** Where orders are kept. */
export const ORDERS = 'yokeline orders';

/** What was chosen for a list before; null where nothing was, or no such column is there any more. */
export function rememberedOrder<Column extends string>(
  list: OrderedList,
  columns: Record<Column, unknown>,
): Order<Column> | null {
  const kept = keptMap(ORDERS)[list];
  const isOrder = typeof kept === 'object' && kept !== null && 'by' in kept && 'rising' in kept;
  if (!isOrder || typeof kept.by !== 'string' || typeof kept.rising !== 'boolean') return null;
  return Object.hasOwn(columns, kept.by) ? { by: kept.by as Column, rising: kept.rising } : null;
}

/** Rows in an order. */
export function inOrder<Row, Column extends string>(
  rows: readonly Row[],
  values: Values<Row, Column>,
  { by, rising }: Order<Column>,
): Row[] {
  const value = values[by];
  const sign = rising ? 1 : -1;
  return [...rows].sort((a, b) => {
    const [x, y] = [value(a), value(b)];
    return sign * (typeof x === 'string' || typeof y === 'string' ? compared(String(x), String(y)) : x - y);
  });
}

const compared = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** Puts rows in order by a column. `rising`: which way round it is now; null where another column decides. `onKey`: keys for its width. */
export function OrderButton({
  words,
  rising,
  onSort,
  onKey,
}: {
  words: string;
  rising: boolean | null;
  onSort: () => void;
  onKey?: (event: KeyboardEvent<HTMLElement>) => void;
}) {
  const mine = rising !== null;
  return (
    <button
      type="button"
      aria-pressed={mine}
      aria-keyshortcuts={onKey ? 'Alt+ArrowLeft Alt+ArrowRight' : undefined}
      title={`${mine ? 'the other way round' : `sort by ${words}`}${onKey ? '; Alt and ← or → makes the column narrower or wider' : ''}`}
      onClick={onSort}
      onKeyDown={onKey}
      className={`min-h-6 min-w-6 ${mine ? 'font-medium text-ink' : 'text-soft hover:text-ink'}`}
    >
      {words}
      {mine ? <span aria-hidden="true"> {rising ? '▴' : '▾'}</span> : null}
    </button>
  );
}

/** What the heads of a list have in common. */
export interface Heads<Column extends string> {
  list: OrderedList;
  order: Order<Column>;
  onSort: (column: Column) => void;
}

/** The head of a column by which a table can be put in order; its edge can be moved. */
export function OrderHead<Column extends string>({
  of,
  words,
  list,
  order,
  onSort,
  className = '',
}: Heads<Column> & { of: Column; words: string; className?: string }) {
  const rising = order.by === of ? order.rising : null;
  const column = useColumnWidth(list, of);
  const style = column.width === null ? undefined : { width: column.width, minWidth: column.width };
  return (
    <th
      scope="col"
      data-column
      style={style}
      aria-sort={rising === null ? 'none' : rising ? 'ascending' : 'descending'}
      className={`relative py-1 font-normal whitespace-nowrap last:[&>[data-column-edge]]:hidden ${className}`}
    >
      <OrderButton words={words} rising={rising} onSort={() => onSort(of)} onKey={columnKeys(column)} />
      <ColumnEdge {...column} />
    </th>
  );
}

/** The same for lists that are grids, whose first column takes what the others leave. */
export function OrderCell<Column extends string>({
  of,
  words,
  order,
  onSort,
  column,
  className = '',
}: Omit<Heads<Column>, 'list'> & { of: Column; words: string; column: ColumnWidth | null; className?: string }) {
  const rising = order.by === of ? order.rising : null;
  return (
    <span data-column className={`relative ${className}`}>
      {column ? <ColumnEdge {...column} at="left" /> : null}
      <OrderButton
        words={words}
        rising={rising}
        onSort={() => onSort(of)}
        onKey={column ? columnKeys(column) : undefined}
      />
    </span>
  );
}
