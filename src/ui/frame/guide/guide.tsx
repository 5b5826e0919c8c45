'use client';

import { useEffect } from 'react';
import type { StationId } from '../../../core/vocabulary/stations.ts';
import { useHandoffPage } from '../../state/handoff-page.ts';
import { usePlan, useWorkbench } from '../../state/workbench.ts';
import { recallGuide, setGuide, useGuide } from './progress.ts';
import { GUIDE } from './steps.ts';

/** The app that the path leads through. */
const SAMPLE = 'saltmarsh-ferries';

const BUTTON = 'rounded border border-line px-2.5 py-1 hover:border-ink';
const MAIN = 'rounded bg-ink px-2.5 py-1 font-medium text-on-ink';

export function useGuideFits(): boolean {
  return useWorkbench((s) => s.app?.name) === SAMPLE;
}

/** A short path through one improvement, beside whatever the person does; it can be left at any time, and taken up again. */
export function Guide({ station }: { station: StationId }) {
  const { state, step } = useGuide();
  const fits = useGuideFits();
  const route = useWorkbench((s) => s.route);
  const plan = usePlan();
  const handoffPage = useHandoffPage((s) => s.page);
  useEffect(recallGuide, []);
  if (!fits || state === 'unknown' || state === 'left') return null;
  const leave = () => setGuide({ state: 'left', step });
  if (state === 'asked')
    return (
      <Card title="New here?" onLeave={leave}>
        <p className="mt-1 text-soft">
          The sample, a made-up ferry operator, has mistakes to be found. Seven short steps lead from one of them to the
          patch.
        </p>
        <div className="mt-3 flex justify-end gap-2">
          <button type="button" onClick={leave} className={BUTTON}>
            Not now
          </button>
          <button type="button" onClick={() => setGuide({ state: 'open', step: 0 })} className={MAIN}>
            Show me around
          </button>
        </div>
      </Card>
    );
  const at = Math.min(step, GUIDE.length - 1);
  const { title, words, way, go, done } = GUIDE[at];
  const isDone = done({ station, route, plan, handoffPage });
  const last = at === GUIDE.length - 1;
  const next = () => setGuide(last ? { state: 'left', step: 0 } : { state: 'open', step: at + 1 });
  return (
    <Card title={title} count={`${at + 1} of ${GUIDE.length}`} onLeave={leave}>
      <p className="mt-1 text-soft">{words}</p>
      <div className="mt-3 flex items-center justify-between gap-2">
        <button
          type="button"
          disabled={at === 0}
          onClick={() => setGuide({ state: 'open', step: at - 1 })}
          className="text-soft underline disabled:invisible"
        >
          back
        </button>
        <span className="flex gap-2">
          <button type="button" onClick={go} className={isDone ? BUTTON : MAIN}>
            {way}
          </button>
          <button type="button" onClick={next} className={isDone ? MAIN : BUTTON}>
            {last ? 'Done' : isDone ? '✓ Next' : 'Next'}
          </button>
        </span>
      </div>
    </Card>
  );
}

function Card({
  title,
  count,
  onLeave,
  children,
}: {
  title: string;
  count?: string;
  onLeave: () => void;
  children: React.ReactNode;
}) {
  return (
    <section
      aria-label="Guide"
      className="fixed right-4 bottom-[130px] z-30 w-[330px] rounded border border-ink bg-sheet p-4 shadow-xl"
    >
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[15px] font-semibold">{title}</h2>
        <span className="flex items-baseline gap-3 text-soft">
          {count ? <span className="text-[11px]">{count}</span> : null}
          <button
            type="button"
            aria-label="Leave the guide"
            title="Leave it; the top bar takes it up again"
            onClick={onLeave}
          >
            ✕
          </button>
        </span>
      </div>
      {children}
    </section>
  );
}
