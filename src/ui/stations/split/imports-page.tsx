'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { size } from '../../parts/format.ts';
import { isTakenElsewhere } from '../../parts/keys.ts';
import { Message } from '../../parts/message.tsx';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';
import { ImportSheet } from './import-sheet.tsx';
import { linesOf } from './lines.ts';
import { SplitList } from './split-list.tsx';
import { SplitPointSheet } from './split-point-sheet.tsx';
import { toggleImport, togglePreload } from './toggles.ts';
import { useOutline } from './use-outline.ts';

/** What a route pulls in: its imports and split points, to be detached, joined and hinted. */
export function ImportsPage() {
  const { found: outline, error } = useOutline();
  const route = useWorkbench((s) => s.route);
  const plan = useWorkbench((s) => storedPlan(s));
  const selection = useWorkbench((s) => s.selection);
  const choose = useWorkbench((s) => s.choose);
  const [text, setText] = useState('');
  const [inside, setInside] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const lines = useMemo(() => (outline ? linesOf(outline, { text, inside }) : []), [outline, text, inside]);
  const chosen = lines.find(
    (l) =>
      (l.kind === 'import' && selection?.kind === 'import' && l.row.key === selection.key) ||
      (l.kind === 'split' && selection?.kind === 'split point' && l.row.key === selection.module),
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTakenElsewhere(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '/') {
        event.preventDefault();
        search.current?.focus();
        return;
      }
      if (event.key !== 'd' && event.key !== 'p') return;
      if (!chosen || chosen.kind === 'heading') return;
      if (!plan) toast('The baseline stays as built. Choose or make a plan first.');
      else if (event.key === 'd') toggleImport(chosen);
      else if (chosen.kind === 'split') togglePreload(chosen.row, route);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [chosen, plan, route]);

  if (error) return <Message title="This route can’t be outlined">{error}</Message>;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_320px]">
      <div className="flex min-h-0 min-w-0 flex-col">
        <div className="flex items-end justify-between gap-4 px-4 pt-4 pb-2">
          <div className="min-w-0">
            <h1 className="text-[15px] font-semibold">What {route} pulls in</h1>
            <p className="text-soft">
              {outline ? `${size(outline.start.compressed)} of modules at start · ` : ''}solid: own weight · outline:
              what it carries with it
            </p>
          </div>
          <div className="flex shrink-0 items-center gap-3">
            <label className="flex items-center gap-1.5 text-soft">
              <input type="checkbox" checked={inside} onChange={(event) => setInside(event.target.checked)} />
              inside packages
            </label>
            <input
              ref={search}
              type="search"
              value={text}
              placeholder="find  /"
              aria-label="Find an import"
              onChange={(event) => setText(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                event.preventDefault();
                event.currentTarget.blur();
              }}
              className="w-40 rounded border border-line bg-paper px-2 py-1"
            />
          </div>
        </div>
        <SplitList lines={lines} chosen={chosen?.id ?? null} loading={!outline} found={text !== ''} />
      </div>
      <aside aria-label="Details" className="min-h-0 overflow-y-auto border-l border-line px-4 py-4">
        {chosen?.kind === 'import' ? (
          <ImportSheet key={chosen.id} row={chosen.row} />
        ) : chosen?.kind === 'split' ? (
          <SplitPointSheet
            key={chosen.id}
            row={chosen.row}
            chain={outline?.splits.filter((r) => r.inChain && r.imports.length > 0) ?? []}
          />
        ) : (
          <div className="text-soft">
            <h2 className="mb-1 font-semibold text-ink">Choose a line</h2>
            <p>
              Start with the heaviest import that is not needed on the first screen. Here you will see what would leave
              the start if it were detached, before anything is decided.
            </p>
            <button type="button" className="mt-3 text-ink underline" onClick={() => pickFirst(lines, choose)}>
              Choose it for me
            </button>
          </div>
        )}
      </aside>
    </div>
  );
}

function pickFirst(
  lines: ReturnType<typeof linesOf>,
  choose: (change: { selection: { kind: 'import'; key: string } }) => void,
): void {
  const first = lines.find((l) => l.kind === 'import' && l.row.part?.place !== 'first screen');
  if (first?.kind === 'import') choose({ selection: { kind: 'import', key: first.row.key } });
}
