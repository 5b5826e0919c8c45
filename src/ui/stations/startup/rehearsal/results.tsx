'use client';

import type { Gain } from '../../../../core/rehearsals/quantities.ts';
import { half } from '../../../../core/rehearsals/spread.ts';
import type { Rehearsal } from '../../../../core/rehearsals/types.ts';
import { offWords, spreadWords } from '../../../../core/rehearsals/words.ts';
import type { KeptRehearsal } from '../../../../store/rehearsals.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { time } from '../../../parts/format.ts';
import { Differences } from './differences.tsx';
import { useStale } from './kept-list.tsx';
import { TakeMeasured } from './take-measured.tsx';

/** What was rehearsed, the milestones side by side, and what that says of the plan. */
export function Results({
  shown,
  rehearsal,
  found,
}: {
  shown: KeptRehearsal;
  rehearsal: Rehearsal;
  found: RehearsedView;
}) {
  const stale = useStale(shown);
  const { plan, pattern, address, conditions, runs, browser } = rehearsal;
  return (
    <>
      <h1 className="text-[15px] font-semibold">
        {plan}: {pattern} as run in a browser
      </h1>
      <p className="text-soft">
        {runs.length} {runs.length === 1 ? 'run' : 'runs'} of {address} in {browser}, {conditions.link.name},{' '}
        {conditions.device.name}
        {found.slowed}
      </p>
      {stale ? <p className="text-worse">Out of date: {stale}.</p> : null}
      <Verdict gains={found.gains} />
      <div className="mt-3 mb-4 flex flex-wrap items-start gap-x-10 gap-y-3">
        <Milestones found={found} />
        <TakeMeasured rehearsal={rehearsal} />
      </div>
      <Differences found={found} rehearsal={rehearsal} />
    </>
  );
}

/** The plan against the baseline in one sentence, by when it is interactive. */
function Verdict({ gains }: { gains: Gain[] | null }) {
  const gain = gains?.find((g) => g.quantity === 'interactive');
  if (!gain || gain.predicted === null || gain.rehearsed === null) return null;
  const { predicted, rehearsed, give, verdict } = gain;
  return (
    <p className="mt-2 rounded border border-line bg-paper px-3 py-1.5">
      Interactive against the baseline: predicted <b>{change(predicted)}</b>, rehearsed{' '}
      <b>
        {change(rehearsed)} ± {time(give ?? 0)}
      </b>
      : {verdict}.
    </p>
  );
}

function change(gain: number): string {
  return `${gain >= 0 ? '−' : '+'}${time(Math.abs(gain))}`;
}

function Milestones({ found }: { found: RehearsedView }) {
  return (
    <table>
      <thead>
        <tr className="text-left text-soft">
          <th className="pr-6 font-normal">milestone</th>
          <th className="pr-6 text-right font-normal">predicted</th>
          <th className="pr-6 text-right font-normal">rehearsed</th>
          <th className="text-right font-normal">off by</th>
        </tr>
      </thead>
      <tbody>
        {found.quantities.map((q) => (
          <tr key={`${q.quantity} ${q.act}`} data-rehearsed={q.quantity}>
            <td className="max-w-72 truncate pr-6" title={q.name}>
              {q.name}
            </td>
            <td className="pr-6 text-right">{q.predicted === null ? 'never' : time(q.predicted)}</td>
            <td className="pr-6 text-right" title={spreadWords(q.rehearsed)}>
              {q.rehearsed ? `${time(q.rehearsed.median)} ± ${time(half(q.rehearsed))}` : 'not seen'}
            </td>
            <td className={`text-right ${Math.abs(q.off ?? 0) > 0.12 ? 'text-worse' : ''}`}>{offWords(q.off)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
