'use client';

import type { Weight } from '../../../core/chunks/carried.ts';
import type { Part } from '../../../core/snapshot/route-types.ts';
import { triggerWords } from '../../../core/vocabulary/triggers.ts';
import { size } from '../../parts/format.ts';
import { Marked } from '../../parts/marked.tsx';
import type { GroupLine, Line } from './lines.ts';

/** The columns of all lines, as wide as the list around them says. */
export const COLUMNS =
  'grid-cols-[22px_minmax(96px,1fr)_var(--column-weight)_var(--column-needed)_var(--column-fetched)] pr-2';

const BAR = 184;
/** Where the figures before the bars end. */
const FIGURE = 52;

/** The id of a line’s element. */
export const lineId = (index: number): string => `line-${index}`;

type RealLine = Exclude<Line, { kind: 'heading' } | GroupLine>;

export interface LineProps<L> {
  line: L;
  index: number;
  chosen: boolean;
  /** Compressed bytes of the longest bar. */
  heaviest: number;
  onChoose: (event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }) => void;
  onAct: () => void;
}

/** One import or split point. */
export function ListLine({
  line,
  index,
  chosen,
  marked,
  heaviest,
  onChoose,
  onAct,
}: LineProps<RealLine> & { marked: boolean }) {
  const { row } = line;
  const split = line.kind === 'split';
  const changed = split
    ? line.row.imports.some((i) => i.changed) || line.row.planned || line.row.hints.length > 0
    : line.row.changed;
  const outer = split ? line.row.group : line.row.carried;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
    <div
      id={lineId(index)}
      role="option"
      tabIndex={-1}
      aria-selected={chosen || marked}
      onClick={onChoose}
      onDoubleClick={onAct}
      className={`grid ${line.kind === 'import' && line.within ? 'pl-5' : ''} h-full cursor-pointer ${COLUMNS} items-center rounded-sm outline-none ${chosen ? 'bg-mark' : 'hover:bg-band'}`}
    >
      {marked ? <Marked /> : <Joint broken={split} changed={changed} />}
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
  return (
    <svg width="250" height="20" aria-hidden="true" className="max-w-full">
      <title>{`own ${size(own.compressed)}, with what it carries ${size(outer.compressed)}`}</title>
      <text x={FIGURE} y="14" textAnchor="end" fontSize="12" fill="var(--soft)">
        {outer.compressed > 0 ? size(outer.compressed) : size(own.compressed)}
      </text>
      {outer.compressed > 0 ? (
        <rect
          x={FIGURE + 8.5}
          y="4.500"
          width={Math.max(2, scale(outer))}
          height="11"
          rx="1.500"
          fill="none"
          stroke={colour}
        />
      ) : null}
      <rect
        x={FIGURE + 8.5}
        y="4.500"
        width={Math.max(1.5, scale(own))}
        height="11"
        rx="1.500"
        fill={colour}
        opacity="0.85"
      />
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

/** The imports into one package or folder, folded. */
export function GroupListLine({ line, index, chosen, heaviest, onChoose, onAct }: LineProps<GroupLine>) {
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list around it takes the keys
    <div
      id={lineId(index)}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      onClick={(event) => (chosen ? onAct() : onChoose(event))}
      className={`grid h-full cursor-pointer ${COLUMNS} items-center rounded-sm outline-none ${chosen ? 'bg-mark' : 'hover:bg-band'}`}
    >
      <svg width="22" height="28" aria-hidden="true">
        <title>{line.open ? 'unfolded' : 'folded'}</title>
        <path d={line.open ? 'M5,11 l5,6 l5,-6 z' : 'M7,9 l6,5 l-6,5 z'} fill="var(--soft)" />
      </svg>
      <span className={`min-w-0 truncate ${chosen ? 'font-semibold' : ''}`} title={line.title}>
        {line.title}
        <span className="sr-only">, {line.open ? 'unfolded' : 'folded'}, </span>
      </span>
      <Bar own={line.own} outer={NOTHING} heaviest={heaviest} split={false} />
      <span className="truncate text-soft">{line.package === null ? 'folder' : 'package'}</span>
      <span className="truncate text-right text-soft">
        {line.rows.length} {line.rows.length === 1 ? 'import' : 'imports'}
      </span>
    </div>
  );
}

const NOTHING: Weight = { minified: 0, compressed: 0 };
