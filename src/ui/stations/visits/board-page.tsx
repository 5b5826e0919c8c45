'use client';

import { useState } from 'react';
import type { Estimate, Expectation, WishRow } from '../../../core/visitors/expect.ts';
import { Change } from '../../parts/change.tsx';
import { count, percent, size, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { useExpectation } from '../../state/expectation.ts';
import { BoardRows } from './board-rows.tsx';
import { ModelSheet } from './model-sheet.tsx';

/** What all visitors can expect: every move and act with its wait and its waste, the dearest first. */
export function BoardPage({ onPlay }: { onPlay: (row: WishRow) => void }) {
  const [stopped, setStopped] = useState(false);
  const { now, baseline, done, error } = useExpectation(stopped);
  const [route, setRoute] = useState<string | null>(null);
  return (
    <StationGrid id="board" aside={330}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        <h1 className="text-[15px] font-semibold">What visitors wait for after the landing</h1>
        <p className="mb-3 flex items-baseline gap-3 text-soft" aria-live="polite">
          {done < 1 ? (
            <>
              <progress value={done} aria-label="visits played" className="h-1.5 w-32" />
              <span>
                {stopped ? 'stopped' : 'playing visits'} … {percent(done)}
              </span>
              <button type="button" className="text-ink underline" onClick={() => setStopped(!stopped)}>
                {stopped ? 'Go on' : 'Stop'}
              </button>
            </>
          ) : now ? (
            `${count(now.visits)} visits played, the same ones for the plan and the baseline`
          ) : null}
        </p>
        {error ? (
          <Message title="Nothing to expect">{error}</Message>
        ) : now ? (
          <>
            <Sums now={now} baseline={baseline} />
            <BoardRows now={now} baseline={baseline} route={route} onRoute={setRoute} onPlay={onPlay} />
          </>
        ) : (
          <p className="text-soft">Working out the first waits …</p>
        )}
      </div>
      <Aside label="Visitors">
        <ModelSheet route={route} onRoute={setRoute} />
      </Aside>
    </StationGrid>
  );
}

/** Mean over all landings. */
function started(of: Expectation): number {
  return of.starts.reduce((sum, s) => sum + s.share * s.wait, 0);
}

function Sums({ now, baseline }: { now: Expectation; baseline: Expectation | null }) {
  const half = (e: Expectation) => e.spread.find((s) => s.share === 0.5)?.wait ?? Number.NaN;
  const most = (e: Expectation) => e.spread.find((s) => s.share === 0.9)?.wait ?? Number.NaN;
  return (
    <dl className="mb-4 flex flex-wrap gap-x-4 gap-y-3">
      <Sum
        name="page shows after"
        value={exact(started(now))}
        was={baseline ? started(baseline) : undefined}
        format={time}
      />
      <Sum name="waits per visit" value={now.waits} was={baseline?.waits.value} format={time} />
      <Sum name="half below" value={exact(half(now))} was={baseline ? half(baseline) : undefined} format={time} />
      <Sum name="9 of 10 below" value={exact(most(now))} was={baseline ? most(baseline) : undefined} format={time} />
      <Sum name="at once" value={now.atOnce} was={baseline?.atOnce.value} format={percent} lowerIsBetter={false} />
      <Sum name="travels" value={now.bytes} was={baseline?.bytes.value} format={size} />
      <Sum name="never used" value={now.unused} was={baseline?.unused.value} format={size} />
      {now.failures > 0 || (baseline?.failures ?? 0) > 0 ? (
        <Sum
          name="fails, of 100 visits"
          value={exact(now.failures * 100)}
          was={baseline ? baseline.failures * 100 : undefined}
          format={(v) => v.toFixed(1)}
        />
      ) : null}
      {now.unusedSavers !== null && now.unused.value > 0 ? (
        <Sum
          name="by data savers"
          value={exact(now.unusedSavers)}
          was={baseline?.unusedSavers ?? undefined}
          format={size}
        />
      ) : null}
    </dl>
  );
}

/** What rounds to nothing is said as less than one of its unit. */
const SMALLEST = 1;

function exact(value: number): Estimate {
  return { value, error: 0 };
}

function Sum({
  name,
  value: { value, error },
  was,
  format,
  lowerIsBetter = true,
}: {
  name: string;
  value: Estimate;
  was?: number;
  format: (v: number) => string;
  lowerIsBetter?: boolean;
}) {
  return (
    <div>
      <dt className="text-[11px] text-soft">{name}</dt>
      <dd className="text-[15px] font-medium whitespace-nowrap">
        {format(value)}
        {error > 0 ? (
          <span className="ml-1 text-[11px] font-normal text-soft">
            ± {format(error) === format(0) ? `< ${SMALLEST}` : format(error)}
          </span>
        ) : null}
      </dd>
      <dd className="text-[11px]">
        {was === undefined ? '' : <Change value={value - was} format={format} lowerIsBetter={lowerIsBetter} />}
      </dd>
    </div>
  );
}
