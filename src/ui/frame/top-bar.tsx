'use client';

import { Check, Ellipsis, MoonStar, Redo2, Undo2 } from 'lucide-react';
import { useEffect } from 'react';
import { deviceOf, linkOf } from '../../core/sim/own-conditions.ts';
import type { CacheState } from '../../core/vocabulary/cache-states.ts';
import { Choice } from '../parts/choice.tsx';
import { count } from '../parts/format.ts';
import { nameOf, recallConditions, useKeptConditions } from '../state/own-conditions.ts';
import { useWorkbench } from '../state/workbench.ts';
import { CACHE_OPTIONS, deviceOptions, linkOptions } from './condition-options.ts';
import { useGuideFits } from './guide/guide.tsx';
import { setGuide, useGuide } from './guide/progress.ts';
import { PlanChoice } from './plan-choice.tsx';
import { ProjectChoice } from './project-choice.tsx';
import { RouteChoice } from './route-choice/route-choice.tsx';
import { openSheet } from './sheets/open-sheet.ts';
import { toggleTheme } from './theme.ts';

const OWN = ':own';

/** Project, plan, moment and conditions: always there. */
export function TopBar({ loaded }: { loaded: boolean }) {
  return (
    <header className="top-bar flex min-h-11 min-w-0 items-stretch border-b border-line bg-sheet">
      <a
        href="/"
        className="brand flex w-[148px] shrink-0 items-center gap-2 border-r border-line pl-4 text-[15px] font-semibold"
      >
        <Logo /> Yokeline
      </a>
      {loaded ? <Choices /> : <div className="flex-1" />}
      {loaded ? <History /> : null}
      {loaded ? <GuideButton /> : null}
      <button
        type="button"
        aria-label="Light or dark"
        title="Light or dark (t)"
        onClick={toggleTheme}
        className="px-2.5 text-soft hover:text-ink"
      >
        <MoonStar size={15} />
      </button>
      <button
        type="button"
        aria-label="Keys"
        title="Keys (?)"
        onClick={() => openSheet('keys')}
        className="mr-2 px-2.5 font-mono text-soft hover:text-ink"
      >
        ?
      </button>
    </header>
  );
}

/** Takes the guided path up again where it was left. */
function GuideButton() {
  const { state, step } = useGuide();
  const fits = useGuideFits();
  if (!fits || state !== 'left') return null;
  return (
    <button
      type="button"
      title="Seven steps through one improvement"
      onClick={() => setGuide({ state: 'open', step })}
      className="px-2 text-soft hover:text-ink"
    >
      Guide
    </button>
  );
}

function Choices() {
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const choose = useWorkbench((s) => s.choose);
  const kept = useKeptConditions();
  useEffect(recallConditions, []);
  return (
    <div className="choices flex min-w-0 flex-1 flex-wrap items-stretch">
      <ProjectChoice />
      <PlanChoice />
      <RouteChoice />
      <Choice
        caption="link"
        value={linkId}
        shown={nameOf(kept.links, linkOf(linkId))}
        options={[...linkOptions(kept.links), { value: OWN, label: 'Own values …' }]}
        onChange={(next) => (next === OWN ? openSheet('conditions') : choose({ linkId: next }))}
      />
      <Choice
        caption="device"
        value={deviceId}
        shown={nameOf(kept.devices, deviceOf(deviceId))}
        options={[...deviceOptions(kept.devices), { value: OWN, label: 'Own values …' }]}
        onChange={(next) => (next === OWN ? openSheet('conditions') : choose({ deviceId: next }))}
      />
      <Choice
        caption="cache"
        value={cache}
        options={CACHE_OPTIONS}
        onChange={(next) => choose({ cache: next as CacheState })}
      />
    </div>
  );
}

/** Whether what was changed is kept: one sign of a steady width, so that nothing moves at each change. */
function Saved() {
  const failed = useWorkbench((s) => s.saving === 'failed' || s.savingAmendments === 'failed');
  const saving = useWorkbench((s) => s.saving === 'saving' || s.savingAmendments === 'saving');
  const saveNow = useWorkbench((s) => s.saveNow);
  if (failed) {
    return (
      <button type="button" className="mr-1 text-worse underline" onClick={() => void saveNow()}>
        not saved, try again
      </button>
    );
  }
  const words = saving ? 'Saving' : 'Everything is saved';
  const Sign = saving ? Ellipsis : Check;
  return (
    <span role="img" aria-label={words} title={words} className="px-1 text-faint">
      <Sign size={14} aria-hidden />
    </span>
  );
}

function History() {
  const done = useWorkbench((s) => s.done);
  const undone = useWorkbench((s) => s.undone);
  const undo = useWorkbench((s) => s.undo);
  const redo = useWorkbench((s) => s.redo);
  const last = done.at(-1);
  const next = undone.at(-1);
  return (
    <div className="flex shrink-0 items-center gap-1 pl-3 text-soft">
      <Saved />
      <button
        type="button"
        disabled={!last}
        onClick={undo}
        aria-label={last ? `Undo “${last.words}” (${count(done.length)} steps)` : 'Nothing to undo'}
        title={last ? `Undo “${last.words}” (Ctrl Z)` : 'Nothing to undo'}
        className="flex h-7 items-center gap-1.5 rounded px-1.5 enabled:hover:bg-band disabled:opacity-40"
      >
        <Undo2 size={15} />
        {last ? <span className="hidden max-w-40 truncate xl:inline">{last.words}</span> : null}
      </button>
      <button
        type="button"
        disabled={!next}
        onClick={redo}
        aria-label={next ? `Redo “${next.words}”` : 'Nothing to redo'}
        title={next ? `Redo “${next.words}” (Ctrl Shift Z)` : 'Nothing to redo'}
        className="flex h-7 items-center rounded px-1.5 enabled:hover:bg-band disabled:opacity-40"
      >
        <Redo2 size={15} />
      </button>
    </div>
  );
}

function Logo() {
  return (
    <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
      <title>Yokeline</title>
      <path
        d="M4 16.5C4 9 10 9 12 12s8 3 8-4.500"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.400"
        strokeLinecap="round"
      />
      <circle cx="4" cy="17" r="2.600" fill="var(--ink)" />
      <circle cx="20" cy="7" r="2.600" fill="var(--hinted)" />
    </svg>
  );
}
