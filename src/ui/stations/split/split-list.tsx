'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { Weight } from '../../../core/chunks/carried.ts';
import { triggerWords } from '../../../core/plan/decisions.ts';
import type { Part } from '../../../core/snapshot/types.ts';
import { size } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { useWorkbench } from '../../state/workbench.ts';
import type { Line } from './lines.ts';
import { toggleImport } from './toggles.ts';

const LINE = 28;
const HEADING = 40;
const BAR = 190;

/** The list of imports and split points; only what is in sight is drawn. */
export function SplitList({
  lines,
  chosen,
  loading,
  found,
}: {
  lines: Line[];
  chosen: string | null;
  loading: boolean;
  found: boolean;
}) {
  const choose = useWorkbench((s) => s.choose);
  const box = useRef<HTMLDivElement>(null);
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

  const select = (index: number, step: 1 | -1) => {
    for (let i = index; i >= 0 && i < lines.length; i += step) {
      const line = lines[i];
      if (line.kind === 'heading') continue;
      choose({
        selection:
          line.kind === 'import'
            ? { kind: 'import', key: line.row.key }
            : { kind: 'split point', module: line.row.key },
      });
      return;
    }
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') select(at + 1, 1);
    else if (event.key === 'ArrowUp') select(at < 0 ? 0 : at - 1, -1);
    else if (event.key === 'Home') select(0, 1);
    else if (event.key === 'End') select(lines.length - 1, -1);
    else return;
    event.preventDefault();
  };

  if (loading) return <Message title="Following the imports">Weighing what each one carries.</Message>;
  if (lines.length === 0) {
    return found ? (
      <Message title="No import by that name">Try a file name, a folder or a package.</Message>
    ) : (
      <Message title="Nothing is imported here">The entry of this route has no imports.</Message>
    );
  }
  const heaviest = Math.max(
    1,
    ...lines.map((l) =>
      l.kind === 'import'
        ? Math.max(l.row.own.compressed, l.row.carried.compressed)
        : l.kind === 'split'
          ? l.row.group.compressed
          : 0,
    ),
  );
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label="Imports and split points"
      aria-activedescendant={at >= 0 ? `line-${at}` : undefined}
      onKeyDown={onKey}
      className="min-h-0 flex-1 overflow-y-auto px-3 pb-4 outline-offset-[-2px]"
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const line = lines[item.index];
          return (
            <div key={item.key} className="absolute inset-x-0" style={{ top: item.start, height: item.size }}>
              {line.kind === 'heading' ? (
                <div role="presentation" className="flex h-full items-end gap-2 pb-1.5 pl-2 font-semibold">
                  {line.title} <span className="font-normal text-soft">{line.note}</span>
                </div>
              ) : (
                <ListLine
                  line={line}
                  index={item.index}
                  chosen={line.id === chosen}
                  heaviest={heaviest}
                  onChoose={() => select(item.index, 1)}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

type RealLine = Exclude<Line, { kind: 'heading' }>;

function ListLine({
  line,
  index,
  chosen,
  heaviest,
  onChoose,
}: {
  line: RealLine;
  index: number;
  chosen: boolean;
  heaviest: number;
  onChoose: () => void;
}) {
  const { row } = line;
  const split = line.kind === 'split';
  const changed = split
    ? line.row.imports.some((i) => i.changed) || line.row.planned || line.row.hints.length > 0
    : line.row.changed;
  const outer = split ? line.row.group : line.row.carried;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
    <div
      id={`line-${index}`}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      onClick={onChoose}
      onDoubleClick={() => toggleImport(line)}
      className={`grid h-full cursor-pointer grid-cols-[22px_minmax(0,1fr)_250px_150px_minmax(96px,150px)] items-center rounded-sm pr-2 outline-none ${chosen ? 'bg-mark' : 'hover:bg-band'}`}
    >
      <Joint broken={split} changed={changed} />
      <span
        className="min-w-0 truncate"
        title={split ? line.row.target : `${line.row.from}:${line.row.line} imports ${line.row.to}`}
      >
        <span className={chosen ? 'font-semibold' : ''}>{row.name}</span>
        <span className="sr-only">
          , {split ? 'deferred' : 'joined'}, {size(outer.compressed)},
        </span>
        <span className="ml-2 text-[11px] text-soft">
          {split ? '' : `in ${line.row.from.replace(/^.*\//, '')}:${line.row.line}`}
        </span>
      </span>
      <Bar own={row.own} outer={outer} heaviest={heaviest} split={split} />
      <NeededWhen part={row.part} chain={split && line.row.inChain} />
      <span className={`truncate text-right ${split ? 'text-on-demand' : 'text-soft'}`}>
        {split
          ? `${triggerWords(line.row.trigger)}${line.row.hints.length > 0 ? ' · hinted' : ''}`
          : line.row.carried.minified === 0 && line.row.heldBy.length > 0
            ? `held by ${line.row.heldBy.length}`
            : ''}
      </span>
    </div>
  );
}

/** The line of imports: closed where the import is joined, broken with a ring where loading is deferred. */
function Joint({ broken, changed }: { broken: boolean; changed: boolean }) {
  return (
    <svg width="22" height="28" aria-hidden="true">
      <title>{broken ? 'deferred' : 'joined'}</title>
      {broken ? (
        <>
          <path d="M6,0 V9 M6,14 h4" stroke="var(--on-demand)" fill="none" strokeWidth="1.500" />
          <circle
            cx="13"
            cy="14"
            r="3.500"
            fill={changed ? 'var(--on-demand)' : 'var(--sheet)'}
            stroke="var(--on-demand)"
            strokeWidth="1.500"
          />
        </>
      ) : (
        <>
          <path
            d="M6,0 V28 M6,14 h9"
            stroke={changed ? 'var(--needed)' : 'var(--faint)'}
            fill="none"
            strokeWidth="1.300"
          />
          {changed ? <circle cx="16" cy="14" r="2.500" fill="var(--needed)" /> : null}
        </>
      )}
    </svg>
  );
}

function Bar({ own, outer, heaviest, split }: { own: Weight; outer: Weight; heaviest: number; split: boolean }) {
  const colour = split ? 'var(--on-demand)' : 'var(--needed)';
  const scale = (w: Weight) => (w.compressed / heaviest) * BAR;
  const wide = Math.max(scale(own), scale(outer));
  return (
    <svg width="250" height="20" aria-hidden="true">
      <title>{`own ${size(own.compressed)}, with what it carries ${size(outer.compressed)}`}</title>
      {outer.compressed > 0 ? (
        <rect
          x="0.500"
          y="4.500"
          width={Math.max(2, scale(outer))}
          height="11"
          rx="1.500"
          fill="none"
          stroke={colour}
        />
      ) : null}
      <rect x="0.500" y="4.500" width={Math.max(1.5, scale(own))} height="11" rx="1.500" fill={colour} opacity="0.85" />
      <text x={wide + 8} y="14" fontSize="12" fill="var(--soft)">
        {outer.compressed > 0 ? size(outer.compressed) : size(own.compressed)}
      </text>
    </svg>
  );
}

function NeededWhen({ part, chain }: { part: Part | null; chain: boolean }) {
  if (chain) return <span className="truncate text-soft">the route itself</span>;
  if (!part) return <span />;
  if (part.place === 'first screen') return <span className="truncate text-soft">first screen</span>;
  if (part.place === 'action')
    return <span className="truncate text-in-case-text">behind “{part.action ?? part.name}”</span>;
  if (part.place === 'below') return <span className="truncate text-in-case-text">below first screen</span>;
  const width = part.condition?.kind === 'media' ? part.condition.maxWidth : undefined;
  return <span className="truncate text-in-case-text">{width ? `only up to ${width} px` : 'conditional'}</span>;
}
