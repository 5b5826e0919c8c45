'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ImportRow } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { shortName } from '../../../core/text/short-name.ts';
import { size } from '../../parts/format.ts';
import { isTakenElsewhere } from '../../parts/keys.ts';
import { Message } from '../../parts/message.tsx';
import { Pills } from '../../parts/pills.tsx';
import { Term } from '../../parts/term.tsx';
import { useLanding } from '../../state/landing.ts';
import { chosenChunk } from '../../state/selection.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';
import { ImportSheet } from './import-sheet.tsx';
import { groupDecisions, type ListFilter, linesOf } from './lines.ts';
import { ManySheet } from './many-sheet.tsx';
import { type ChoosableLine, SplitList } from './split-list.tsx';
import { SplitPointSheet } from './split-point-sheet.tsx';
import { toggleImport, togglePreload } from './toggles.ts';
import { useOutline } from './use-outline.ts';

const NONE: ReadonlySet<string> = new Set();

const needPlan = () => toast('The baseline stays as built. Choose or make a plan first.');

/** What a route, or a split point within it, pulls in: imports and split points, to be detached, joined and hinted. */
export function ImportsPage() {
  const route = useWorkbench((s) => s.route);
  const [inner, setInner] = useState<{ of: string; on: string } | null>(null);
  const within = inner?.on === route ? inner.of : null;
  const { found: outline, error } = useOutline(within);
  const plan = useWorkbench((s) => storedPlan(s));
  const start = useLanding((s) => s.now?.readout.startBytes ?? null);
  const selection = useWorkbench((s) => s.selection);
  const choose = useWorkbench((s) => s.choose);
  const decide = useWorkbench((s) => s.decide);
  const chunk = chosenChunk(selection);
  const [filter, setFilter] = useState<Omit<ListFilter, 'within'>>({
    text: '',
    inside: false,
    by: 'weight',
    open: NONE,
  });
  const [group, setGroup] = useState<string | null>(null);
  const [marks, setMarks] = useState(NONE);
  const search = useRef<HTMLInputElement>(null);
  const lines = useMemo(() => (outline ? linesOf(outline, { ...filter, within }) : []), [outline, filter, within]);
  const chosen = lines.find((l): l is ChoosableLine => {
    if (l.kind === 'group') return selection === null && l.id === group;
    if (l.kind === 'import') return selection?.kind === 'import' && l.row.key === selection.key;
    if (l.kind !== 'split') return false;
    return (
      (selection?.kind === 'split point' && l.row.key === selection.module) ||
      (chunk !== null && l.row.chunks.includes(chunk))
    );
  });
  const marked = outline?.imports.filter((i) => marks.has(i.key)) ?? [];
  const many = marked.length > 0 ? marked : chosen?.kind === 'group' ? chosen.rows : [];
  const decisions: Decision[] =
    marked.length > 0
      ? marked.map((i) => ({ kind: 'detach', import: i.key }))
      : chosen?.kind === 'group'
        ? groupDecisions(chosen)
        : [];
  const title = marked.length > 0 ? `${marked.length} imports chosen` : chosen?.kind === 'group' ? chosen.title : '';

  const pick = (line: ChoosableLine) => {
    setGroup(line.kind === 'group' ? line.id : null);
    if (line.kind === 'group') choose({ selection: null });
    else if (line.kind === 'import') choose({ selection: { kind: 'import', key: line.row.key } });
    else choose({ selection: { kind: 'split point', module: line.row.key } });
  };
  const enter = (of: string) => {
    setMarks(NONE);
    setInner({ of, on: route });
  };
  const fold = (line: ChoosableLine, open: boolean) => {
    if (line.kind !== 'group') return;
    const next = new Set(filter.open);
    if (open) next.add(line.id);
    else next.delete(line.id);
    setFilter({ ...filter, open: next });
  };
  const detachMany = () => {
    decide(decisions, marked.length > 0 ? `detach ${marked.length} imports` : `detach what leads into ${title}`);
    setMarks(NONE);
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTakenElsewhere(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '/') {
        event.preventDefault();
        search.current?.focus();
      } else if (event.key === 'Escape') {
        if (marks.size > 0) setMarks(NONE);
        else if (within) setInner(null);
      } else if (event.key === 'd' || event.key === 'p') {
        if (!chosen && decisions.length === 0) return;
        if (!plan) needPlan();
        else if (event.key === 'd' && decisions.length > 0) detachMany();
        else if (!chosen || chosen.kind === 'group') return;
        else if (event.key === 'd') toggleImport(chosen);
        else if (chosen.kind === 'split') togglePreload(chosen.row, route);
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });

  if (error) return <Message title="This route can’t be outlined">{error}</Message>;
  return (
    <div className="station-grid grid h-full min-h-0 grid-cols-[minmax(0,1fr)_320px]">
      <div className="flex min-h-0 min-w-0 flex-col">
        <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1 px-4 pt-4 pb-2">
          <div className="min-w-0">
            <h1 className="truncate text-[15px] font-semibold">
              What {within ? shortName(within) : route} pulls in
              {within ? (
                <button
                  type="button"
                  className="ml-3 text-[13px] font-normal text-soft underline hover:text-ink"
                  onClick={() => setInner(null)}
                >
                  back to {route}
                </button>
              ) : null}
            </h1>
            <p className="truncate text-soft">
              {outline && within ? `${size(outline.start.compressed)} of modules beside what is there · ` : ''}
              {start !== null && !within ? (
                <>
                  {size(start)} at <Term of="start">start</Term> ·{' '}
                </>
              ) : null}
              solid: <Term of="own weight">own</Term>, outline: <Term of="carried weight">carried</Term>
            </p>
          </div>
          <div className="flex shrink-0 items-center gap-3">
            <Pills
              legend="Imports by"
              options={['weight', 'folder'] as const}
              chosen={filter.by}
              words={(by) => `by ${by}`}
              onChoose={(by) => setFilter({ ...filter, by })}
            />
            <label className="flex items-center gap-1.5 text-soft">
              <input
                type="checkbox"
                checked={filter.inside}
                onChange={(event) => setFilter({ ...filter, inside: event.target.checked })}
              />
              inside packages
            </label>
            <input
              ref={search}
              type="search"
              value={filter.text}
              placeholder="find  /"
              aria-label="Find an import"
              onChange={(event) => setFilter({ ...filter, text: event.target.value })}
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                event.preventDefault();
                event.currentTarget.blur();
              }}
              className="w-32 rounded border border-line bg-paper px-2 py-1"
            />
          </div>
        </div>
        <SplitList
          lines={lines}
          chosen={chosen?.id ?? null}
          marks={marks}
          loading={!outline}
          found={filter.text !== ''}
          onChoose={pick}
          onMark={(wanted) => {
            const next = new Set(marks);
            for (const l of wanted) if (l.kind === 'import' && !next.delete(l.row.key)) next.add(l.row.key);
            setMarks(next);
          }}
          onAct={(line) => {
            if (line.kind === 'group') fold(line, !line.open);
            else if (line.kind === 'split') enter(line.row.target);
            else if (plan) toggleImport(line);
            else needPlan();
          }}
          onFold={fold}
        />
      </div>
      <aside aria-label="Details" className="min-h-0 overflow-y-auto border-l border-line px-4 py-4">
        {many.length > 0 ? (
          <ManySheet
            title={title}
            note={
              marked.length > 0
                ? 'Ctrl and a click, or Space, adds more'
                : `${many.length} ${many.length === 1 ? 'import leads' : 'imports lead'} here`
            }
            own={chosen?.kind === 'group' && marked.length === 0 ? chosen.own.compressed : ownOf(marked)}
            decisions={decisions}
            onDetach={detachMany}
            onClear={() => {
              setMarks(NONE);
              setGroup(null);
            }}
          />
        ) : chosen?.kind === 'import' ? (
          <ImportSheet key={chosen.id} row={chosen.row} within={within} />
        ) : chosen?.kind === 'split' ? (
          <SplitPointSheet
            key={chosen.id}
            row={chosen.row}
            chain={outline?.splits.filter((r) => r.inChain && r.imports.length > 0) ?? []}
            onEnter={() => enter(chosen.row.target)}
          />
        ) : (
          <div className="text-soft">
            <h2 className="mb-1 font-semibold text-ink">Choose a line</h2>
            <p>
              Start with the heaviest import that is not needed on the first screen. Here you will see what would leave
              the start if it were detached, before anything is decided.
            </p>
            <button type="button" className="mt-3 text-ink underline" onClick={() => pickFirst(lines, pick)}>
              Choose it for me
            </button>
          </div>
        )}
      </aside>
    </div>
  );
}

function pickFirst(lines: ReturnType<typeof linesOf>, pick: (line: ChoosableLine) => void): void {
  const first = lines.find((l) => l.kind === 'import' && l.row.part?.place !== 'first screen');
  if (first?.kind === 'import') pick(first);
}

/** Compressed bytes of the modules that imports lead to, each once. */
function ownOf(rows: ImportRow[]): number {
  return [...new Map(rows.map((r) => [r.to, r.own.compressed])).values()].reduce((a, b) => a + b, 0);
}
