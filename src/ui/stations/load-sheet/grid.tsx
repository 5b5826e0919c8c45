'use client';

import { useRef, useState } from 'react';
import type { SheetCell, SheetRow } from '../../../core/load-sheet/sheet.ts';
import { size } from '../../parts/format.ts';
import { TERMS } from '../../parts/terms.ts';
import { BREAK, HEADS, type PlacedColumn } from './layout.ts';
import { cellWords, MOMENTS } from './words.ts';

const LINE = 26;
const NAMES = 112;
/** Names that begin closer to each other would run into each other. */
const NAMED_FROM = 11;
const MARKED_FROM = 13;

/** The sheet itself. One cell has the focus; arrow keys move it, Enter chooses its chunk. */
export function Grid({
  rows,
  columns,
  chosen,
  folded,
  onFold,
  onOver,
  onChoose,
}: {
  rows: SheetRow[];
  columns: PlacedColumn[];
  chosen: ReadonlySet<string>;
  folded: ReadonlySet<string>;
  onFold: (route: string) => void;
  onOver: (over: { row: SheetRow; placed: PlacedColumn } | null) => void;
  onChoose: (row: SheetRow, placed: PlacedColumn) => void;
}) {
  const [at, setAt] = useState({ row: 0, column: 0 });
  const [column, setColumn] = useState<number | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const last = columns[columns.length - 1];
  const wide = last.x + last.width;
  const row = Math.min(at.row, rows.length - 1);
  const place = Math.min(at.column, columns.length - 1);
  const go = (nextRow: number, nextColumn: number) => {
    const next = {
      row: Math.max(0, Math.min(rows.length - 1, nextRow)),
      column: Math.max(0, Math.min(columns.length - 1, nextColumn)),
    };
    setAt(next);
    setColumn(columns[next.column].at);
    onOver({ row: rows[next.row], placed: columns[next.column] });
    box.current
      ?.querySelector(`[data-cell="${next.row} ${next.column}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  const onKey = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key];
    if (by) {
      event.preventDefault();
      go(row + by[0], place + by[1]);
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onChoose(rows[row], columns[place]);
    } else if (event.key === 'Home') go(row, 0);
    else if (event.key === 'End') go(row, columns.length - 1);
  };
  return (
    <div ref={box} className="h-full overflow-auto pb-2">
      <div className="relative" style={{ width: HEADS + wide + 84 }}>
        <ColumnNames columns={columns} lit={column} chosen={chosen} />
        <div
          role="grid"
          aria-label="Load sheet"
          aria-rowcount={rows.length}
          aria-colcount={columns.length}
          aria-activedescendant={`cell-${row}-${place}`}
          tabIndex={0}
          className="group outline-none focus-visible:outline-none"
          onKeyDown={onKey}
          onFocus={() => go(row, place)}
          onMouseLeave={() => {
            setColumn(null);
            onOver(null);
          }}
        >
          {rows.map((r, i) => (
            <Row
              key={r.id}
              row={r}
              at={i}
              columns={columns}
              focused={i === row ? place : -1}
              lit={column}
              chosen={chosen}
              folded={folded.has(r.route)}
              onFold={() => onFold(r.route)}
              onKey={onKey}
              onOver={(placed) => {
                setColumn(placed.at);
                onOver({ row: r, placed });
              }}
              onChoose={(c) => {
                setAt({ row: i, column: c });
                onChoose(r, columns[c]);
              }}
            />
          ))}
        </div>
        <Break columns={columns} />
        <ColumnSizes columns={columns} />
      </div>
    </div>
  );
}

function Row({
  row,
  at,
  columns,
  focused,
  lit,
  chosen,
  folded,
  onFold,
  onKey,
  onOver,
  onChoose,
}: {
  row: SheetRow;
  at: number;
  columns: PlacedColumn[];
  /** Which of its cells has the focus; -1: none. */
  focused: number;
  lit: number | null;
  chosen: ReadonlySet<string>;
  folded: boolean;
  onFold: () => void;
  onKey: (event: React.KeyboardEvent) => void;
  onOver: (placed: PlacedColumn) => void;
  onChoose: (column: number) => void;
}) {
  const last = columns[columns.length - 1];
  const wide = last.x + last.width;
  return (
    <div
      role="row"
      tabIndex={-1}
      className={`relative flex ${row.kind === 'landing' ? 'border-t border-line' : ''}`}
      style={{ height: LINE }}
    >
      <RowHead row={row} folded={folded} onFold={onFold} />
      {columns.map((placed, c) => {
        const cell = row.cells.find((x) => x.column === placed.at);
        return (
          <div
            key={placed.column.id}
            id={`cell-${at}-${c}`}
            role="gridcell"
            tabIndex={-1}
            data-cell={`${at} ${c}`}
            aria-label={cellWords(row, placed.column, cell)}
            onMouseEnter={() => onOver(placed)}
            onClick={() => onChoose(c)}
            onKeyDown={onKey}
            className={`absolute inset-y-0 flex scroll-mt-28 items-center ${chosen.has(placed.column.id) ? 'bg-mark' : lit === placed.at ? 'bg-band' : ''} ${c === focused ? 'group-focus:outline-2 group-focus:-outline-offset-1 group-focus:outline-ink' : ''}`}
            style={{ left: HEADS + placed.x, width: placed.width }}
          >
            <Cell cell={cell} marked={placed.width >= MARKED_FROM} />
          </div>
        );
      })}
      <div
        role="gridcell"
        tabIndex={-1}
        className={`absolute inset-y-0 flex items-center justify-end ${row.kind === 'landing' ? 'font-semibold' : 'text-soft'}`}
        style={{ left: HEADS + wide, width: 76 }}
      >
        {size(row.start ?? row.bytes)}
        {row.start !== null && row.bytes - row.start >= 50 ? (
          <span className="block text-[10px] leading-none" title={TERMS['also fetched']}>
            +{size(row.bytes - row.start)} also
          </span>
        ) : null}
      </div>
    </div>
  );
}

function RowHead({ row, folded, onFold }: { row: SheetRow; folded: boolean; onFold: () => void }) {
  const landing = row.kind === 'landing';
  return (
    <div
      role="rowheader"
      tabIndex={-1}
      className="sticky left-0 z-10 flex h-full shrink-0 items-center gap-2 bg-sheet pr-3"
      style={{ width: HEADS - 6 }}
    >
      <span className={`shrink-0 text-[11px] text-soft ${landing ? 'w-14' : 'ml-4 w-[60px]'}`}>
        {MOMENTS[row.kind]}
      </span>
      <span className={`truncate ${landing ? 'font-semibold' : ''}`} title={row.name}>
        {row.name}
      </span>
      {landing ? (
        <button
          type="button"
          tabIndex={-1}
          aria-label={folded ? `Unfold ${row.route}` : `Fold ${row.route}`}
          onClick={onFold}
          className="ml-auto shrink-0 px-1 text-soft hover:text-ink"
        >
          {folded ? '+' : '–'}
        </button>
      ) : null}
    </div>
  );
}

function Cell({ cell, marked }: { cell: SheetCell | undefined; marked: boolean }) {
  if (!cell) return null;
  if (cell.role === 'here') return <span className="h-px w-full bg-faint" />;
  const look = cell.role.replace(' ', '-');
  return (
    <span
      className={`grid h-[18px] w-full place-items-center overflow-hidden rounded-[2px] text-[11px] leading-none cell-${look} ${cell.role === 'on demand' ? 'text-on-ink' : ''}`}
    >
      {marked ? <Mark role={cell.role} /> : null}
    </span>
  );
}

/** The second code beside colour and texture, where the cell has room for it. */
function Mark({ role }: { role: SheetCell['role'] }) {
  if (role === 'hinted') return <Notch />;
  return role === 'on demand' ? '↓' : role === 'ready' ? '✓' : null;
}

function Notch() {
  return <span className="-mt-[16px] size-0 border-x-4 border-t-4 border-x-transparent border-t-sheet" />;
}

function ColumnNames({
  columns,
  lit,
  chosen,
}: {
  columns: PlacedColumn[];
  lit: number | null;
  chosen: ReadonlySet<string>;
}) {
  return (
    <div aria-hidden="true" className="sticky top-0 z-20 bg-sheet" style={{ height: NAMES }}>
      {columns.map(({ column, at, x, width }, i) => {
        const before = columns[i - 1];
        const crowded = before !== undefined && x + width / 2 - before.x - before.width / 2 < NAMED_FROM && at !== lit;
        return (
          <div key={column.id} className="absolute bottom-0" style={{ left: HEADS + x, width }}>
            {crowded && !chosen.has(column.id) ? null : (
              <span
                className={`absolute bottom-2 left-1/2 origin-bottom-left -rotate-[58deg] text-[11px] whitespace-nowrap ${at === lit || chosen.has(column.id) ? 'font-semibold' : 'text-soft'}`}
              >
                {column.name.length > 20 ? `${column.name.slice(0, 19)}…` : column.name}
              </span>
            )}
            <span className={`block h-[3px] ${chosen.has(column.id) ? 'bg-ink' : 'bg-faint'}`} />
          </div>
        );
      })}
    </div>
  );
}

const SIZED_FROM = 26;

function ColumnSizes({ columns }: { columns: PlacedColumn[] }) {
  return (
    <div aria-hidden="true" className="relative h-6">
      {columns.map(({ column, x, width, light: isLight }) =>
        width < SIZED_FROM || isLight ? null : (
          <span
            key={column.id}
            className="absolute top-1 truncate text-center text-[11px] text-soft"
            style={{ left: HEADS + x, width }}
          >
            {size(column.bytes).replace(' kB', '')}
          </span>
        ),
      )}
    </div>
  );
}

/** Where the scale ends: what stands behind it is wider than it weighs. */
function Break({ columns }: { columns: PlacedColumn[] }) {
  const first = columns.findIndex((c) => c.light);
  if (first <= 0) return null;
  const left = HEADS + columns[first].x - BREAK / 2 - 4;
  return (
    <div aria-hidden="true" className="pointer-events-none absolute top-28 bottom-6 z-[1]" style={{ left }}>
      <svg width={8} height="100%">
        <title>the scale ends here</title>
        <pattern id="sheet-break" width="8" height="16" patternUnits="userSpaceOnUse">
          <path d="M4,0 L7,4 L1,12 L4,16" fill="none" stroke="var(--faint)" strokeWidth="1" />
        </pattern>
        <rect width="8" height="100%" fill="url(#sheet-break)" />
      </svg>
    </div>
  );
}
