'use client';

import type { ReactNode } from 'react';
import { limitWords } from '../../core/limits/words.ts';
import type { StartSum } from '../../core/metrics/start.ts';
import { MEASURES } from '../../core/vocabulary/measures.ts';
import type { LandingAnswer } from '../../worker/services/startup.ts';
import type { LandingView } from '../../worker/views.ts';
import { Change } from '../parts/change.tsx';
import { count, size, time } from '../parts/format.ts';
import { later } from '../parts/later.tsx';
import { Term } from '../parts/term.tsx';
import { TERMS } from '../parts/terms.ts';
import { useHandoffPage } from '../state/handoff-page.ts';
import { useLanding, useLandingIsOld } from '../state/landing.ts';
import { useLimitStates } from '../state/limits.ts';
import { useStations } from '../state/stations.ts';
import { endTrial, type Trial, useTrial } from '../state/trial.ts';
import { storedPlan, useWorkbench } from '../state/workbench.ts';
import { Behind } from './behind/behind.tsx';
import type { StripFigure } from './behind/figures.ts';

/** The figures come first; what draws them is fetched after the page is there. */
const StripDrawing = later(
  () => import('./strip-drawing.tsx').then((m) => m.StripDrawing),
  () => <div className="flex-1" />,
);

/** The startup of the present choice with the baseline as a ghost, and the readout with its changes. */
export function LiveStrip({ first }: { first: LandingAnswer | null }) {
  // Until the project is open the figures are those that came with the page.
  const isOpen = useWorkbench((s) => s.project !== null);
  const sent = isOpen ? null : first;
  const now = useLanding((s) => s.now) ?? sent?.now;
  const ghost = useLanding((s) => s.ghost) ?? sent?.ghost;
  const error = useLanding((s) => s.error);
  const plan = useWorkbench((s) => storedPlan(s));
  const trial = useTrial();
  const old = useLandingIsOld();
  return (
    <section
      aria-label="Live strip"
      aria-busy={old}
      className="flex min-w-0 overflow-x-auto border-t border-line bg-sheet"
    >
      <div className={`w-[148px] shrink-0 border-r border-line px-4 pt-3 ${trial ? 'bg-mark' : ''}`}>
        {trial ? (
          <Trying trial={trial} />
        ) : (
          <>
            <h2 className="font-semibold">Live strip</h2>
            <p className="text-soft">{plan ? 'plan, baseline in grey' : 'baseline, as built'}</p>
            <Warnings />
          </>
        )}
      </div>
      {error ? <p className="p-4 text-worse">{error}</p> : null}
      {now && ghost && !error ? (
        // Figures of something that was chosen before fade where the new ones take long.
        <div className={`flex min-w-0 flex-1 ${old ? 'opacity-50 transition-opacity delay-200 duration-0' : ''}`}>
          <Figures now={now} ghost={ghost} />
          {isOpen ? (
            <StripDrawing now={now} ghost={ghost} behind={trial ? 'before' : 'baseline'} />
          ) : (
            <div className="flex-1" />
          )}
        </div>
      ) : null}
    </section>
  );
}

/** A change that is looked at without being made, over the plan as it is. */
function Trying({ trial: { remedy } }: { trial: Trial }) {
  const take = useWorkbench((s) => s.take);
  return (
    <>
      <h2 className="font-semibold">Preview</h2>
      <p className="line-clamp-2 leading-tight" title={remedy.words}>
        {remedy.words}
      </p>
      <p className="mt-1.5 flex gap-1.5">
        <button type="button" className="rounded bg-ink px-2 py-0.5 text-on-ink" onClick={() => take(remedy)}>
          Apply
        </button>
        <button type="button" className="rounded border border-soft px-2 py-0.5 hover:border-ink" onClick={endTrial}>
          Stop
        </button>
      </p>
    </>
  );
}

/** What must not pass in silence: decisions that name nothing any more, and a prediction that was cut off. */
function Warnings() {
  const stale = useLanding((s) => s.stale);
  const stopped = useLanding((s) => s.now?.timeline.stopped);
  const missing = useLanding((s) => s.now?.missing);
  const broken = useLimitStates().states.filter((s) => s.state !== 'kept');
  const go = useStations((s) => s.go);
  const showLimits = () => {
    useHandoffPage.setState({ page: 'limits' });
    go('handoff');
  };
  return (
    <>
      {broken.length > 0 ? (
        <button
          type="button"
          onClick={showLimits}
          title={broken.map((s) => limitWords(s.limit)).join('\n')}
          className="text-left text-worse underline"
        >
          ▴ {broken.length === 1 ? '1 limit exceeded' : `${broken.length} limits exceeded`}
        </button>
      ) : null}
      {stale.length > 0 ? (
        <p className="text-worse" title={stale.map((s) => s.reason).join('\n')}>
          {stale.length === 1 ? '1 decision no longer applies' : `${stale.length} decisions no longer apply`}
        </p>
      ) : null}
      {missing?.map((m) => (
        <p key={`${m.name} ${m.state}`} className="text-worse" title={m.waits ? `it waits: ${m.waits}` : undefined}>
          {m.name} never {m.state === 'shown' ? 'shows' : 'answers'}
        </p>
      ))}
      {stopped ? (
        <p className="text-worse" title={stopped}>
          prediction cut off
        </p>
      ) : null}
    </>
  );
}

const FIGURES: {
  of: StripFigure;
  words: string;
  read: (view: LandingView) => number;
  write: (value: number) => string;
  /** For a time that rests on the estimated cost of script. */
  milestone?: keyof LandingView['milestones'];
  /** The sum of files that it is, which may be none. */
  sum?: StartSum;
  /** Left out where it is nothing, before and now. */
  mayBeNothing?: true;
  /** It would be more if the sizes were known that aren't. */
  restsOnSizes?: true;
}[] = [
  {
    of: 'first content',
    words: TERMS['first content'],
    read: (v) => v.milestones.firstContent,
    write: time,
    milestone: 'firstContent',
    restsOnSizes: true,
  },
  {
    of: 'interactive',
    words: 'when all interactive parts of the first screen answer',
    read: (v) => v.milestones.interactive,
    write: time,
    milestone: 'interactive',
    restsOnSizes: true,
  },
  { of: 'start bytes', words: TERMS.start, read: (v) => v.readout.startBytes, write: size, sum: 'start' },
  {
    of: 'other scripts',
    words: TERMS['other scripts'],
    read: (v) => v.readout.otherScripts,
    write: size,
    sum: 'other scripts',
    mayBeNothing: true,
    restsOnSizes: true,
  },
  {
    of: 'also fetched',
    words: TERMS['also fetched'],
    read: (v) => v.readout.alsoFetched,
    write: size,
    sum: 'also fetched',
    mayBeNothing: true,
  },
  {
    of: 'requests',
    words: 'requests sent until interactive, the document included',
    read: (v) => v.readout.requests,
    write: count,
  },
  {
    of: 'hops',
    words: 'longest chain of discoveries among them, the document being hop 0',
    read: (v) => v.readout.hops,
    write: count,
  },
  {
    of: 'wasted bytes',
    words: 'bytes that this landing fetches and nothing uses that shows by then',
    read: (v) => v.readout.wasted,
    write: size,
  },
];

function Figures({ now, ghost }: { now: LandingView; ghost: LandingView }) {
  return (
    <dl className="flex shrink-0 py-4 pl-1" aria-live="polite">
      {FIGURES.filter((f) => !f.mayBeNothing || (f.sum && now.sums[f.sum].length + ghost.sums[f.sum].length > 0)).map(
        ({ of, words, read, write, milestone, restsOnSizes }) => (
          <Figure
            key={of}
            name={MEASURES[of].name}
            words={words}
            value={write(read(now))}
            atLeast={restsOnSizes && now.unknown.length > 0 ? now.unknown : []}
            of={of}
            view={now}
          >
            <Change value={read(now) - read(ghost)} format={write} />
            {milestone && now.nineInTen ? (
              <span
                className="block text-[11px] text-soft"
                title="packets are lost at random: nine of ten loads are no later; the figure is of the load in the middle"
              >
                9 in 10 by {time(now.nineInTen[milestone])}
              </span>
            ) : milestone && now.range && Number.isFinite(now.range.high[milestone]) ? (
              <span
                className="block text-[11px] text-soft"
                title="the plausible range: script and drawing as cheap or as dear as they may be where they are estimated, and 7 % either way, as nine of ten recorded loads were off"
              >
                {time(now.range.low[milestone])} – {time(now.range.high[milestone])}
              </span>
            ) : null}
          </Figure>
        ),
      )}
    </dl>
  );
}

function Figure({
  name,
  words,
  value,
  atLeast,
  of,
  view,
  children,
}: {
  name: string;
  words: string;
  value: string;
  /** Files of unknown size that it rests on. */
  atLeast: string[];
  of: StripFigure;
  view: LandingView;
  children: ReactNode;
}) {
  const unsure = atLeast.length > 0 ? `at least: the size of ${atLeast.join(', ')} isn’t known` : undefined;
  const written = unsure ? <span title={unsure}>≥ {value}</span> : value;
  return (
    <div data-figure={name} className="min-w-[82px] border-r border-line px-3 last:border-r-0">
      <dt className="text-[11px] leading-tight text-soft">
        <Term means={words}>{name}</Term>
      </dt>
      <dd className="text-[17px] leading-6 font-medium whitespace-nowrap">
        <Behind label={`${unsure ? `≥ ${value}` : value}, ${name}: what is behind it`} of={of} view={view}>
          {written}
        </Behind>
      </dd>
      <dd className="text-xs whitespace-nowrap">{children}</dd>
    </div>
  );
}
