'use client';

import { ChevronDown, ChevronUp } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type ReactNode, useEffect } from 'react';
import { readyFindings, savedOn } from '../../core/advise/ready.ts';
import type { Finding } from '../../core/advise/types.ts';
import { counted } from '../../core/text/counted.ts';
import type { StationId } from '../../core/vocabulary/stations.ts';
import { percent, time } from '../parts/format.ts';
import { Term } from '../parts/term.tsx';
import { showFinding, stopAdvice, useAdvice, useFindings } from '../state/advice.ts';
import { useLanding, useLandingIsOld } from '../state/landing.ts';
import { nameOf, useKeptConditions } from '../state/own-conditions.ts';
import { hideStanding, recallStanding, useStanding } from '../state/standing.ts';
import { goTo } from '../state/stations.ts';
import { usePreviewOf, useTrial } from '../state/trial.ts';
import { storedPlan, useConditions, useWorkbench } from '../state/workbench.ts';

/** Stations that lead to no advice of their own: there it stands above what is looked at. */
const SHOWN_AT: Record<StationId, boolean> = {
  inventory: true,
  split: true,
  'load-sheet': true,
  startup: true,
  visits: true,
  advice: false,
  compare: false,
  handoff: false,
};
const MOST = 3;

/** Where the landing stands, and what would help most, to be tried and made right here. */
export function StandingLine({ at }: { at: StationId }) {
  const hidden = useStanding((s) => s.hidden);
  const now = useLanding((s) => s.now);
  useEffect(recallStanding, []);
  if (!SHOWN_AT[at] || !now) return null;
  if (hidden)
    return (
      <div className="flex justify-end border-b border-line bg-band px-4">
        <Toggle words="Show where things stand" onPress={() => hideStanding(false)}>
          <ChevronDown size={15} />
        </Toggle>
      </div>
    );
  return (
    <section
      aria-label="Where things stand"
      className="flex flex-wrap items-center gap-x-6 gap-y-0.5 border-b border-line bg-band px-4 py-1.5 lg:flex-nowrap"
    >
      <Standing />
      <Best />
      <Toggle words="Hide where things stand" onPress={() => hideStanding(true)}>
        <ChevronUp size={15} />
      </Toggle>
    </section>
  );
}

function Toggle({ words, onPress, children }: { words: string; onPress: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={words}
      title={words}
      className="grid size-6 shrink-0 place-items-center text-soft hover:text-ink"
      onClick={onPress}
    >
      {children}
    </button>
  );
}

/** The landing in one sentence. */
function Standing() {
  const now = useLanding((s) => s.now);
  const ghost = useLanding((s) => s.ghost);
  const plan = useWorkbench((s) => storedPlan(s));
  const trial = useTrial();
  const route = useWorkbench((s) => s.route);
  const { link, device } = useConditions();
  const kept = useKeptConditions();
  const old = useLandingIsOld();
  if (!now || !ghost) return null;
  const { interactive } = now.milestones;
  const sooner = ghost.milestones.interactive - interactive;
  return (
    <p
      className={`min-w-[260px] shrink-0 basis-full lg:max-w-[46%] lg:basis-auto ${old ? 'opacity-50 transition-opacity delay-200 duration-0' : ''}`}
    >
      <Term of="predicted">Predicted</Term>: <span className="font-medium break-all">{route}</span>{' '}
      {Number.isFinite(interactive) ? (
        <>
          is interactive after <strong className="font-semibold whitespace-nowrap">{time(interactive)}</strong>
        </>
      ) : (
        'never becomes interactive'
      )}{' '}
      <span className="text-soft">
        over {nameOf(kept.links, link)}, {nameOf(kept.devices, device)}
        {trial
          ? `, as previewed: ${soonerWords(sooner, 'before')}`
          : (plan?.decisions.length ?? 0) > 0
            ? `, ${soonerWords(sooner, 'the baseline')}`
            : ''}
      </span>
    </p>
  );
}

/** How much sooner or later something is than what it is compared with. */
function soonerWords(ms: number, than: string): string {
  if (!Number.isFinite(ms) || Math.abs(ms) < 0.5) return `as ${than}`;
  return `${time(Math.abs(ms))} ${ms > 0 ? 'sooner' : 'later'} than ${than}`;
}

/** What saves most, by itself or as far as it is known by now. */
function Best() {
  const { done, error, advice, pace } = useAdvice();
  const { open, old } = useFindings();
  if (error) return <p className="min-w-0 flex-1 truncate text-worse">No advice can be worked out: {error}</p>;
  if (!advice || old)
    return (
      <p className="min-w-0 flex-1 truncate text-soft" aria-live="polite">
        {pace === 'stopped' ? 'Looking for the best change was stopped at' : 'Looking for the best change:'}{' '}
        {percent(done)}{' '}
        {pace === 'going on' ? null : (
          <button type="button" className="underline hover:text-ink" onClick={() => stopAdvice(false)}>
            Go on
          </button>
        )}
      </p>
    );
  const ready = readyFindings(open).slice(0, MOST);
  const [best] = ready;
  if (!best)
    return (
      <p className="min-w-0 flex-1 truncate text-soft">
        {open.length > 0 ? (
          <button type="button" className="underline hover:text-ink" onClick={() => goTo('advice')}>
            {counted(open.length, 'finding')}, none that can be applied as it is
          </button>
        ) : (
          'Nothing that helps more was found under these conditions.'
        )}
      </p>
    );
  return (
    <div className="flex min-w-0 flex-1 items-center gap-2">
      <p className="min-w-0 flex-1 max-lg:truncate" title={`${best.what}: ${best.remedy.words}`}>
        <span className="text-soft">The best change saves </span>
        <Saves finding={best} />
        <span className="text-soft lg:hidden">: {best.remedy.words}</span>
        <span className="hidden leading-tight text-soft lg:line-clamp-2">{best.remedy.words}</span>
      </p>
      <Buttons finding={best} />
      <Popover.Root>
        <Popover.Trigger className="shrink-0 whitespace-nowrap text-soft underline hover:text-ink">
          {open.length === 1 ? 'why' : `${ready.length} best`}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={8}
            collisionPadding={8}
            className="z-50 w-[460px] rounded border border-ink bg-sheet px-4 pt-3 pb-3 shadow-lg"
          >
            <h2 className="mb-1 font-semibold">What saves most</h2>
            <ol>
              {ready.map((f) => (
                <li key={f.id} className="flex items-center gap-3 border-t border-line py-1.5">
                  <button
                    type="button"
                    className="min-w-0 flex-1 text-left hover:underline"
                    onClick={() => showFinding(f)}
                  >
                    <span className="block break-words">{f.what}</span>
                    <span className="block text-[11px] text-soft">
                      {f.remedy.words}: <Saves finding={f} />
                    </span>
                  </button>
                  <Buttons finding={f} />
                </li>
              ))}
            </ol>
            <button type="button" className="mt-1 text-soft underline hover:text-ink" onClick={() => goTo('advice')}>
              {counted(open.length, 'finding')} in Advice
            </button>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}

/** What a change saves on the landing that is looked at, and on average. */
function Saves({ finding }: { finding: Finding }) {
  const route = useWorkbench((s) => s.route);
  const here = savedOn(finding, route);
  const visit = (
    <>
      {time(-finding.effect.cost)} <Term of="cost">a visit</Term>
    </>
  );
  return (
    <span className="text-better">
      {here >= 0.5 ? <strong className="font-semibold">{time(here)} here</strong> : null}
      {here >= 0.5 ? ', ' : null}
      {visit}
    </span>
  );
}

function Buttons({ finding: { remedy } }: { finding: Finding }) {
  const take = useWorkbench((s) => s.take);
  const { on, toggle } = usePreviewOf(remedy);
  return (
    <span className="flex shrink-0 gap-1.5">
      <button
        type="button"
        aria-pressed={on}
        title="Shows it on the strip and in every drawing, without changing the plan"
        className={`rounded border px-2 py-0.5 ${on ? 'border-ink bg-mark' : 'border-soft bg-sheet hover:border-ink'}`}
        onClick={toggle}
      >
        Preview
      </button>
      <button type="button" className="rounded bg-ink px-2 py-0.5 text-on-ink" onClick={() => take(remedy)}>
        Apply
      </button>
    </span>
  );
}
