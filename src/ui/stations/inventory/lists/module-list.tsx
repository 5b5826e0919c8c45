'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import type { ModuleRow, Sizes } from '../../../../core/inventory/inventory.ts';
import { counted } from '../../../../core/text/counted.ts';
import { type ColumnWidth, columnStyle, useColumnWidths } from '../../../parts/columns.tsx';
import { size } from '../../../parts/format.ts';
import { copying, openRowMenu } from '../../../parts/menu/row-menu.ts';
import { type Heads, OrderCell, useOrder, type Values } from '../../../parts/order.tsx';
import { travels } from './travels.ts';

const LINE = 25;
const COLUMNS = 'grid grid-cols-[minmax(0,1fr)_var(--column-size)_var(--column-starts)] items-center pr-1.5';

const USUAL = { size: '96px', starts: '128px' };
const COLUMN_NAMES = ['size', 'starts'] as const;

type Column = 'module' | 'size' | 'starts';
const HEADS: readonly { of: Column; words: string; className: string }[] = [
  { of: 'module', words: 'module', className: '' },
  { of: 'size', words: 'size', className: 'text-right' },
  { of: 'starts', words: 'travels in', className: 'text-right' },
];

/** All modules in the order that is chosen, heaviest first, or those that a word is found in; only what is in sight is drawn. */
export function ModuleList({
  modules,
  routes,
  kind,
  chosen,
  onChoose,
}: {
  modules: ModuleRow[];
  routes: number;
  kind: keyof Sizes;
  chosen: string | null;
  onChoose: (path: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [text, setText] = useState('');
  const found = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    return wanted === '' ? modules : modules.filter((m) => m.path.toLowerCase().includes(wanted));
  }, [modules, text]);
  const values = useMemo<Values<ModuleRow, Column>>(
    () => ({ module: (m) => m.path, size: (m) => m.sizes[kind], starts: (m) => m.routes }),
    [kind],
  );
  const { sorted, head } = useOrder<ModuleRow, Column>('modules', found, values, 'size');
  const widths = useColumnWidths('modules', COLUMN_NAMES);
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => box.current,
    estimateSize: () => LINE,
    overscan: 10,
  });
  const at = sorted.findIndex((m) => m.path === chosen);
  // Out of sight it isn’t drawn, and nothing may point to it.
  const isDrawn = virtual.getVirtualItems().some((item) => item.index === at);
  const go = (index: number) => {
    const to = Math.max(0, Math.min(sorted.length - 1, index));
    if (!sorted[to]) return;
    onChoose(sorted[to].path);
    virtual.scrollToIndex(to, { align: 'auto' });
    box.current?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: sorted.length - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    go(to);
  };
  return (
    <div style={columnStyle(widths, USUAL)}>
      <div className="mb-1 flex items-center gap-3">
        <FindField text={text} onText={setText} onList={() => go(0)} />
        <span aria-live="polite" className="text-soft">
          {text.trim() === '' ? '' : `${counted(found.length, 'module')} of ${modules.length}`}
        </span>
      </div>
      <ColumnHeads {...head} widths={widths} />
      <div
        ref={box}
        role="listbox"
        tabIndex={0}
        aria-label="Modules"
        aria-activedescendant={isDrawn ? rowId(at) : undefined}
        onKeyDown={onKeyDown}
        className="h-72 overflow-y-auto outline-offset-[-2px]"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const m = sorted[item.index];
            return (
              <Line
                key={m.path}
                module={m}
                index={item.index}
                top={item.start}
                kind={kind}
                routes={routes}
                chosen={m.path === chosen}
                onChoose={() => onChoose(m.path)}
              />
            );
          })}
        </div>
      </div>
    </div>
  );
}

function ColumnHeads({ widths, ...head }: Heads<Column> & { widths: Record<Exclude<Column, 'module'>, ColumnWidth> }) {
  return (
    <div className={COLUMNS}>
      {HEADS.map(({ of, words, className }) => (
        <OrderCell
          key={of}
          of={of}
          words={words}
          {...head}
          column={of === 'module' ? null : widths[of]}
          className={className}
        />
      ))}
    </div>
  );
}

const rowId = (index: number): string => `module-${index}`;

/** Finds modules by a part of their path. `onList`: goes on to what was found. */
function FindField({ text, onText, onList }: { text: string; onText: (text: string) => void; onList: () => void }) {
  return (
    <input
      type="search"
      value={text}
      placeholder="find a module"
      aria-label="Find a module in the list"
      onChange={(event) => onText(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== 'ArrowDown') return;
        event.preventDefault();
        onList();
      }}
      className="w-56 rounded border border-line bg-paper px-2 py-1"
    />
  );
}

function Line({
  module: { path, sizes, routes: travelsIn },
  index,
  top,
  kind,
  routes,
  chosen,
  onChoose,
}: {
  module: ModuleRow;
  index: number;
  top: number;
  kind: keyof Sizes;
  routes: number;
  chosen: boolean;
  onChoose: () => void;
}) {
  const bytes = size(sizes[kind]);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
    <div
      id={rowId(index)}
      role="option"
      tabIndex={-1}
      onClick={onChoose}
      onContextMenu={(event) =>
        openRowMenu(event, event.currentTarget, {
          of: path,
          groups: [
            [{ words: 'Show what brings it', run: onChoose }],
            [copying('the path', path), copying('its size', bytes)],
          ],
        })
      }
      aria-selected={chosen}
      className={`absolute inset-x-0 ${COLUMNS} cursor-pointer outline-none ${chosen ? 'bg-mark' : 'hover:bg-band'}`}
      style={{ top, height: LINE }}
    >
      <span className="truncate">{path}</span>
      <span className="text-right">{bytes}</span>
      <span className="text-right text-soft">{travels(travelsIn, routes)}</span>
    </div>
  );
}
