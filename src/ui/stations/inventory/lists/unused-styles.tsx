'use client';

import { X } from 'lucide-react';
import { useState } from 'react';
import type { UnusedStyles as Sheet } from '../../../../core/inventory/inventory.ts';
import { decisionWords, subjectOf } from '../../../../core/plan/decisions.ts';
import { Few } from '../../../parts/few.tsx';
import { percent, size } from '../../../parts/format.ts';
import { useAmendments } from '../../../state/amendments.ts';
import { storedPlan, useWorkbench } from '../../../state/workbench.ts';
import { travels } from './travels.ts';

const MOST = 400;

/** Style rules that nothing in the app can use, by sheet; names that are put together while it runs can be kept. */
export function UnusedStyles({
  sheets,
  routes,
  onChoose,
}: {
  sheets: Sheet[];
  routes: number;
  onChoose: (path: string) => void;
}) {
  return (
    <>
      <KeepList />
      <Trimmed sheets={sheets} />
      {sheets.length === 0 ? (
        <p className="text-soft">Every style rule has a selector whose names the code or a document mentions.</p>
      ) : (
        sheets.map((s) => (
          <details key={s.module} className="border-b border-line py-1.5">
            <summary className="flex cursor-pointer items-baseline gap-3">
              <span className="min-w-0 flex-1 truncate font-medium" title={s.module}>
                {s.module}
              </span>
              <span className="text-soft">{travels(s.routes.length, routes)}</span>
              <span className="w-44 pr-1.5 text-right">
                {size(s.bytes)}{' '}
                <span className="text-soft">
                  of {size(s.whole)}, {percent(s.bytes / Math.max(1, s.whole))}
                </span>
              </span>
            </summary>
            <p className="mt-1 ml-4 grid grid-cols-[56px_minmax(0,1fr)_minmax(0,1fr)_56px] gap-3 text-soft">
              <span />
              <span>rule</span>
              <span>names that nothing mentions</span>
              <span className="pr-1.5 text-right">bytes</span>
            </p>
            <ul className="ml-4">
              <Few rows={s.rules} most={MOST} as="li">
                {(r) => (
                  <li
                    key={`${r.line} ${r.selector}`}
                    className="grid grid-cols-[56px_minmax(0,1fr)_minmax(0,1fr)_56px] gap-3"
                  >
                    <span className="text-soft">line {r.line}</span>
                    <span className="truncate font-mono text-[12px]" title={r.selector}>
                      {r.selector}
                    </span>
                    <span className="truncate text-soft">{[...new Set(r.missing)].join(', ')}</span>
                    <span className="pr-1.5 text-right">{size(r.bytes)}</span>
                  </li>
                )}
              </Few>
            </ul>
            <p className="mt-1 ml-4 flex gap-4 text-soft">
              <TrimButton modules={[s.module]}>leave these rules out</TrimButton>
              <button type="button" className="underline hover:text-ink" onClick={() => onChoose(s.module)}>
                why this sheet travels
              </button>
            </p>
          </details>
        ))
      )}
    </>
  );
}

/** What the open plan trims, to be taken back, and the rest at one press. */
function Trimmed({ sheets }: { sheets: Sheet[] }) {
  const plan = useWorkbench((s) => storedPlan(s));
  const withdraw = useWorkbench((s) => s.withdraw);
  const trims = plan?.decisions.filter((d) => d.kind === 'trim') ?? [];
  if (trims.length === 0 && sheets.length < 2) return null;
  return (
    <p className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
      {trims.length > 0 ? <span className="text-soft">Trimmed in this plan</span> : null}
      {trims.map((d) => (
        <button
          key={subjectOf(d)}
          type="button"
          title="remove the decision"
          className="flex min-h-6 items-center gap-1 rounded-full border border-line py-0.5 pr-1 pl-2.5 hover:text-worse"
          onClick={() => withdraw([subjectOf(d)], `remove: ${decisionWords(d)}`)}
        >
          {d.module}
          <X size={12} />
        </button>
      ))}
      {sheets.length > 1 ? (
        <span className="text-soft">
          <TrimButton modules={sheets.map((s) => s.module)}>leave the unused rules of all sheets out</TrimButton>
        </span>
      ) : null}
    </p>
  );
}

function TrimButton({ modules, children }: { modules: string[]; children: string }) {
  const decide = useWorkbench((s) => s.decide);
  return (
    <button
      type="button"
      className="underline hover:text-ink"
      onClick={() =>
        decide(
          modules.map((module) => ({ kind: 'trim', module })),
          modules.length === 1 ? undefined : `trim ${modules.length} sheets`,
        )
      }
    >
      {children}
    </button>
  );
}

function KeepList() {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const [name, setName] = useState('');
  const { keep } = amendments;
  return (
    <form
      className="mb-2 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const wanted = name.trim().replace(/^[.#]/, '');
        if (wanted === '' || keep.includes(wanted)) return;
        amend({ ...amendments, keep: [...keep, wanted] }, `keep styles for ${wanted}`);
        setName('');
      }}
    >
      <label htmlFor="keep-name" className="text-soft">
        Names that the app puts together while it runs
      </label>
      {keep.map((k) => (
        <span
          key={k}
          className="flex items-center gap-1 rounded-full border border-line py-0.5 pr-1 pl-2.5 font-mono text-[12px]"
        >
          {k}
          <button
            type="button"
            aria-label={`Keep ${k} no longer`}
            className="min-h-6 min-w-6 text-soft hover:text-worse"
            onClick={() => amend({ ...amendments, keep: keep.filter((o) => o !== k) }, `no longer keep ${k}`)}
          >
            <X size={12} />
          </button>
        </span>
      ))}
      <input
        id="keep-name"
        value={name}
        placeholder="tone-*"
        spellCheck={false}
        onChange={(event) => setName(event.target.value)}
        className="w-32 rounded border border-line bg-paper px-2 py-0.5 font-mono text-[12px]"
      />
      <button
        type="submit"
        disabled={name.trim() === ''}
        className="text-soft underline enabled:hover:text-ink disabled:opacity-50"
      >
        keep
      </button>
    </form>
  );
}
