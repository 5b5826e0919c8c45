'use client';

import { useState } from 'react';
import type { Turn } from '../../../core/advise/choose.ts';
import { NumberField } from '../../parts/field.tsx';
import { percent, time } from '../../parts/format.ts';
import { forgetChoice, startChoosing, stopChoosing, useChoosing } from '../../state/choosing.ts';
import { storedPlan, useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';

const BAR = 160;
const MOST_CHANGES = 40;

/** Changes chosen turn by turn under limits, in the order in which they earned their place. */
export function ChoosePage() {
  const plan = usePlan();
  const named = useWorkbench((s) => storedPlan(s));
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const conditions = useConditions();
  const [changes, setChanges] = useState(10);
  const [firstContentMs, setFirstContent] = useState(50);
  const { at, turns, share, choice, of, error } = useChoosing();
  const start = () => void startChoosing(plan, conditions, { changes, firstContentMs });
  const over = at === 'chosen' || at === 'stopped';
  const changed = over && of !== plan;
  const take = () => {
    const words = `${turns.length} chosen changes`;
    const withdrawn = turns.flatMap((t) => t.finding.way.withdraw ?? []);
    if (withdrawn.length > 0) withdraw(withdrawn, words);
    decide(
      turns.flatMap((t) => t.finding.way.decisions),
      words,
    );
    forgetChoice();
  };
  return (
    <div className="h-full min-h-0 overflow-y-auto px-4 pt-4 pb-6">
      <h1 className="text-[15px] font-semibold">Choose for me</h1>
      <p className="mb-3 max-w-2xl text-soft">
        Turn by turn the change that helps visitors most, as the plan is by then, under the conditions at the top; in
        the end what later changes made needless is left out.
      </p>
      <div className="flex flex-wrap items-end gap-5">
        <NumberField
          label="At most"
          unit="changes"
          least={1}
          most={MOST_CHANGES}
          value={changes}
          onTake={(n) => setChanges(Math.round(n))}
        />
        <NumberField
          label="First content later by at most"
          unit="ms per change"
          most={10_000}
          value={firstContentMs}
          onTake={setFirstContent}
        />
        {at === 'choosing' ? (
          <button
            type="button"
            onClick={stopChoosing}
            className="rounded border border-line px-3.5 py-1.5 hover:border-ink"
          >
            Stop
          </button>
        ) : (
          <button
            type="button"
            onClick={start}
            className={`rounded px-3.5 py-1.5 font-medium ${turns.length > 0 ? 'border border-line hover:border-ink' : 'bg-ink text-on-ink'}`}
          >
            {turns.length > 0 ? 'Choose again' : 'Choose'}
          </button>
        )}
        {over && turns.length > 0 && named && !changed ? (
          <button type="button" onClick={take} className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink">
            Take {turns.length === 1 ? 'it' : `these ${turns.length}`}
          </button>
        ) : null}
      </div>
      {error ? (
        <p className="mt-3 text-worse" role="alert">
          {error}
        </p>
      ) : null}
      <p className="mt-4 mb-2 text-soft" aria-live="polite">
        {at === 'choosing'
          ? `turn ${turns.length + 1}: ${percent(share)} of its ways tried`
          : changed
            ? 'The plan has changed since; choose again.'
            : at === 'chosen' && choice
              ? `${turns.length} changes: from ${time(choice.before)} to ${time(choice.after)} of expected cost per visit${choice.givenUp.length > 0 ? `; ${choice.givenUp.length} given up in the end` : ''}`
              : at === 'stopped'
                ? `Stopped after ${turns.length} changes; each of them is measured.`
                : ''}
        {over && turns.length > 0 && !named
          ? ' The baseline stays as built. Choose a plan at the top to take them.'
          : ''}
        {over && turns.length === 0 ? ' Nothing helps under these limits.' : ''}
      </p>
      {turns.length > 0 ? <Path turns={turns} /> : null}
    </div>
  );
}

function Path({ turns }: { turns: Turn[] }) {
  const most = Math.max(1, ...turns.map((t) => t.gain));
  return (
    <table className="w-full max-w-4xl">
      <thead>
        <tr className="text-left text-[11px] text-soft">
          <th className="w-8 font-normal">turn</th>
          <th className="font-normal">change</th>
          <th className="w-64 font-normal">saves a visit at its turn</th>
          <th className="w-24 text-right font-normal">cost after it</th>
        </tr>
      </thead>
      <tbody>
        {turns.map((t, i) => (
          <tr key={t.finding.id} className="border-t border-line align-top">
            <td className="py-1 text-soft">{i + 1}</td>
            <td className="py-1 pr-3">
              {t.finding.way.words}
              <span className="block text-[11px] text-soft">{t.finding.what}</span>
            </td>
            <td className="py-1">
              <span className="flex items-center gap-2">
                <span
                  aria-hidden="true"
                  className="h-2 bg-[var(--better)]"
                  style={{ width: Math.max(1, (t.gain / most) * BAR) }}
                />
                {time(t.gain)}
              </span>
            </td>
            <td className="py-1 text-right">{time(t.cost)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
