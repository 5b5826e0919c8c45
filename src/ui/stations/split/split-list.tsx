'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type MouseEvent, type RefObject, useEffect } from 'react';
import { columnStyle, PlainCell, useColumnWidths } from '../../parts/columns.tsx';
import { type Modifiers, turnedByClick, turnedByStep } from '../../parts/marks.ts';
import { openRowMenu, type RowMenu } from '../../parts/menu/row-menu.ts';
import { Message } from '../../parts/message.tsx';
import type { Line } from './lines.ts';
import { COLUMNS, GroupListLine, ListLine, lineId } from './list-line.tsx';

const LINE = 28;
const HEADING = 40;

/** A line that can be chosen. */
export type ChoosableLine = Exclude<Line, { kind: 'heading' }>;

interface ListProps {
  ref: RefObject<HTMLDivElement | null>;
  lines: Line[];
  chosen: string | null;
  /** Keys of the imports that are chosen together. */
  marks: ReadonlySet<string>;
  loading: boolean;
  found: boolean;
  onChoose: (line: ChoosableLine) => void;
  /** Takes imports, by their keys, to those chosen together, or out of them. */
  onMark: (keys: readonly string[]) => void;
  /** What Enter and a double click do. */
  onAct: (line: ChoosableLine) => void;
  onFold: (line: ChoosableLine, open: boolean) => void;
  /** What can be done with a line. */
  menuOf: (line: ChoosableLine) => Pick<RowMenu, 'of' | 'groups'>;
}

/** The list of imports and split points; only what is in sight is drawn. */
export function SplitList(props: ListProps) {
  const { ref: box, lines, chosen, marks, loading, found, onChoose, onAct, menuOf } = props;
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => (lines[i].kind === 'heading' ? HEADING : LINE),
    getItemKey: (i) => lines[i].id,
    overscan: 12,
  });
  const at = lines.findIndex((l) => l.id === chosen);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);

  const widths = useColumnWidths('imports', COLUMN_NAMES);
  // Out of sight it isn’t drawn, and nothing may point to it.
  const isDrawn = virtual.getVirtualItems().some((item) => item.index === at);
  const { onKey, onPick } = choosing({ ...props, at });

  const onMenu = (event: MouseEvent<HTMLElement>) => {
    const row = (event.target as Element).closest('[role=option]') ?? document.getElementById(lineId(at));
    const line = lines.find((_, index) => lineId(index) === row?.id);
    if (!line || line.kind === 'heading') return;
    onChoose(line);
    openRowMenu(event, row, menuOf(line));
  };

  if (loading) return <Message title="Following the imports">Weighing what each one carries.</Message>;
  if (lines.length === 0) {
    return found ? (
      <Message title="No import by that name">Try a file name, a folder or a package.</Message>
    ) : (
      <Message title="Nothing is imported here">It has no imports of its own beside what is there already.</Message>
    );
  }
  const heaviest = Math.max(1, ...lines.map(longestBar));
  return (
    <div className="flex min-h-0 flex-1 flex-col" style={columnStyle(widths, USUAL)}>
      <div className={`mx-3 grid ${COLUMNS} items-end border-b border-line pb-0.5 text-[11px] text-soft`}>
        <span className="col-span-2 pl-2">import or split point</span>
        <PlainCell words="self and retained size" column={widths.weight} className="pl-1" />
        <PlainCell words="needed" column={widths.needed} />
        <PlainCell words="fetched" column={widths.fetched} className="text-right" />
      </div>
      <div
        ref={box}
        role="listbox"
        tabIndex={0}
        aria-label="Imports and split points"
        aria-multiselectable="true"
        aria-activedescendant={isDrawn ? lineId(at) : undefined}
        onKeyDown={onKey}
        onContextMenu={onMenu}
        className="min-h-0 flex-1 overflow-y-auto px-3 pb-4 outline-offset-[-2px]"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index];
            const common = {
              index: item.index,
              chosen: line.id === chosen,
              heaviest,
              onChoose: (event: Modifiers) => line.kind !== 'heading' && onPick(line, item.index, event),
              onAct: () => line.kind !== 'heading' && onAct(line),
            };
            return (
              <div key={item.key} className="absolute inset-x-0" style={{ top: item.start, height: item.size }}>
                {line.kind === 'heading' ? (
                  <div role="presentation" className="flex h-full items-end gap-2 pb-1.5 pl-2 font-semibold">
                    {line.title} <span className="font-normal text-soft">{line.note}</span>
                  </div>
                ) : line.kind === 'group' ? (
                  <GroupListLine line={line} {...common} />
                ) : (
                  <ListLine line={line} marked={isMarked(line, marks)} {...common} />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** Widths of the columns where nobody gave them another one. */
const USUAL = { weight: 'minmax(90px,250px)', needed: 'minmax(84px,150px)', fetched: 'minmax(72px,150px)' };
const COLUMN_NAMES = ['weight', 'needed', 'fetched'] as const;

/** What keys and clicks do to a list of which line `at` is chosen: choose, mark several, act and fold. */
function choosing({
  lines,
  at,
  marks,
  onChoose,
  onMark,
  onAct,
  onFold,
}: Pick<ListProps, 'lines' | 'marks' | 'onChoose' | 'onMark' | 'onAct' | 'onFold'> & { at: number }) {
  const nearest = (index: number, step: 1 | -1): ChoosableLine | null => {
    for (let i = index; i >= 0 && i < lines.length; i += step) {
      const line = lines[i];
      if (line.kind !== 'heading') return line;
    }
    return null;
  };
  const ids = lines.map((line) => (line.kind === 'import' ? line.row.key : null));
  const go = (index: number, step: 1 | -1, marking: boolean) => {
    const line = nearest(index, step);
    if (!line) return;
    if (marking) onMark(turnedByStep(ids, marks, at, lines.indexOf(line)));
    onChoose(line);
  };
  const onKey = (event: KeyboardEvent) => {
    const line = lines[at];
    const here = line && line.kind !== 'heading' ? line : null;
    if (event.key === 'ArrowDown') go(at + 1, 1, event.shiftKey);
    else if (event.key === 'ArrowUp') go(at < 0 ? 0 : at - 1, -1, event.shiftKey);
    else if (event.key === 'Home') go(0, 1, false);
    else if (event.key === 'End') go(lines.length - 1, -1, false);
    else if (event.key === ' ' && here) onMark(ids[at] === null ? [] : [ids[at]]);
    else if (event.key === 'Enter' && here) onAct(here);
    else if ((event.key === 'ArrowRight' || event.key === 'ArrowLeft') && here)
      onFold(here, event.key === 'ArrowRight');
    else return;
    event.preventDefault();
  };
  const onPick = (line: ChoosableLine, index: number, event: Modifiers) => {
    onMark(turnedByClick(ids, marks, at, index, event));
    onChoose(line);
  };
  return { onKey, onPick };
}

function isMarked(line: ChoosableLine, marks: ReadonlySet<string>): boolean {
  return line.kind === 'import' && marks.has(line.row.key);
}

function longestBar(line: Line): number {
  switch (line.kind) {
    case 'import':
      return Math.max(line.row.own.compressed, line.row.carried.compressed);
    case 'split':
      return line.row.group.compressed;
    case 'group':
      return line.own.compressed;
    case 'heading':
      return 0;
  }
}
