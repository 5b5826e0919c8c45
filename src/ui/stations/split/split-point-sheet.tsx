'use client';

import type { SplitRow } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import type { Hint } from '../../../core/vocabulary/hints.ts';
import { size } from '../../parts/format.ts';
import { Pill } from '../../parts/pill.tsx';
import { TriggerPills } from '../../parts/trigger-pills.tsx';
import { useWorkbench } from '../../state/workbench.ts';
import { BeforeAfter } from './before-after.tsx';
import { HoldSection } from './hold-section.tsx';
import { SplitSettingsFields } from './split-settings.tsx';
import { hintFor, joinChain, joinSplit, toggleHint } from './toggles.ts';
import { useHold, usePreview } from './use-outline.ts';

const HINTS: { kind: Hint['kind']; place: Hint['place']; words: string }[] = [
  { kind: 'modulepreload', place: 'markup', words: 'preload in the markup' },
  { kind: 'modulepreload', place: 'header', words: 'preload in a header' },
  { kind: 'modulepreload', place: 'early', words: 'preload as early hint' },
  { kind: 'prefetch', place: 'markup', words: 'prefetch' },
];

const NOTHING: Decision[] = [];

/** A split point: when it is fetched, hints for it, and what joining it back would do. */
export function SplitPointSheet({ row, chain, onEnter }: { row: SplitRow; chain: SplitRow[]; onEnter: () => void }) {
  const route = useWorkbench((s) => s.route);
  const decide = useWorkbench((s) => s.decide);
  const joins: Decision[] = row.imports.map((i) => ({ kind: 'join', import: i.key }));
  const preview = usePreview(joins.length > 0 ? joins : null);
  const found = useHold(NOTHING, row.target);
  return (
    <>
      <p className="text-[11px] text-soft">split point{row.inChain ? ', part of the route' : ''}</p>
      <h2 className="text-[15px] font-semibold break-words">{row.name}</h2>
      <p className="mb-3 font-mono text-[11px] break-all text-soft">{row.target}</p>
      {joins.length > 0 ? (
        <button
          type="button"
          onClick={() => joinSplit(row)}
          className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink"
        >
          Join it <kbd className="ml-1 font-mono text-xs opacity-70">d</kbd>
        </button>
      ) : null}
      <button
        type="button"
        onClick={onEnter}
        className="ml-2 rounded border border-line px-2.5 py-1.5 hover:border-ink"
      >
        Its own imports <kbd className="ml-1 font-mono text-xs opacity-70">↵</kbd>
      </button>
      <p className="mt-3">
        Its load group brings <strong className="font-semibold">{size(row.group.compressed)}</strong>{' '}
        <span className="text-soft">({size(row.group.minified)} minified)</span>
      </p>
      <ul className="text-soft">
        {row.imports.map((i) => (
          <li key={i.key} className="break-words">
            asked for in {i.from}, line {i.line}
          </li>
        ))}
      </ul>
      <HoldSection found={found} name={row.name} later={!row.inChain && row.part?.place !== 'first screen'} />
      {row.inChain ? (
        <>
          <p className="mt-4 text-soft">
            The route can’t be shown without it, so it is fetched as soon as it is found.
          </p>
          {chain.length > 1 ? (
            <button
              type="button"
              className="mt-2 rounded border border-line px-2.5 py-1 hover:border-ink"
              onClick={() => joinChain(chain, route)}
            >
              Join the whole staircase, {chain.length} pieces
            </button>
          ) : null}
        </>
      ) : (
        <fieldset className="mt-4">
          <legend className="mb-1.5 font-semibold">Fetch when</legend>
          <TriggerPills
            now={row.trigger}
            onPick={(fetch) => decide([{ kind: 'trigger', splitPoint: row.target, fetch }])}
          />
        </fieldset>
      )}
      {row.inChain ? null : <SplitSettingsFields row={row} />}
      <fieldset className="mt-4">
        <legend className="mb-1.5 font-semibold">Hints on {route}</legend>
        <div className="flex flex-wrap gap-1.5">
          {HINTS.map((h) => (
            <Pill
              key={h.words}
              on={row.hints.some((r) => r.kind === h.kind && r.place === h.place)}
              onClick={() => toggleHint(row, hintFor(row, route, h.kind, h.place))}
            >
              {h.words}
            </Pill>
          ))}
        </div>
      </fieldset>
      {joins.length > 0 ? (
        <>
          <h3 className="mt-5 -mb-4 text-soft">If you join it</h3>
          <BeforeAfter preview={preview} />
        </>
      ) : null}
    </>
  );
}
