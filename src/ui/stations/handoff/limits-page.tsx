'use client';

import { useState } from 'react';
import type { Limit, LimitState } from '../../../core/limits/types.ts';
import { amountWords, limitSubject } from '../../../core/limits/words.ts';
import { deviceOf, linkOf } from '../../../core/sim/own-conditions.ts';
import { counted } from '../../../core/text/counted.ts';
import { MEASURES } from '../../../core/vocabulary/measures.ts';
import { useAmendments } from '../../state/amendments.ts';
import { useLimitStates, useLimits } from '../../state/limits.ts';
import { longWork } from '../../state/long-work.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';

const SLACKS = [0, 5, 10, 20, 50];
const CELL = 'border-t border-line py-1 pr-4 text-left font-normal';

/** The most that landings and actions may come to: set from the plan, changed one by one, and how they stand. */
export function LimitsPage() {
  const limits = useLimits();
  const { states, error } = useLimitStates();
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const [slack, setSlack] = useState(10);
  const [troubled, setTroubled] = useState<string | null>(null);
  const plan = usePlan();
  const conditions = useConditions();
  const change = (next: Limit[], words: string) => amend({ ...amendments, limits: next }, words);
  const setAll = async () => {
    try {
      const worker = await longWork();
      const set = await worker.handoff.proposeLimits(plan, conditions, slack / 100);
      // Limits under other conditions stay.
      const others = limits.filter(
        (l) => !set.some((s) => s.link === l.link && s.device === l.device && s.cache === l.cache),
      );
      change([...others, ...set], `set limits from ${plan.name}`);
      setTroubled(null);
    } catch (failure) {
      setTroubled(failure instanceof Error ? failure.message : String(failure));
    }
  };
  const broken = states.filter((s) => s.state !== 'kept').length;
  return (
    <>
      <div className="mb-2 flex items-start justify-between gap-4">
        <div>
          <h2 className="text-[15px] font-semibold">Limits</h2>
          <p className="text-soft">
            {limits.length === 0
              ? 'The most that each landing and action may come to. Every station tells when one is exceeded.'
              : broken === 0
                ? `${counted(limits.length, 'limit')}, all kept by ${plan.name}. In a build pipeline: yokeline check`
                : `${broken} of ${counted(limits.length, 'limit')} exceeded by ${plan.name}.`}
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-2">
          <label className="text-soft">
            with{' '}
            <select
              value={slack}
              onChange={(event) => setSlack(Number(event.target.value))}
              className="rounded border border-line bg-sheet px-1 py-1 text-ink"
            >
              {SLACKS.map((s) => (
                <option key={s} value={s}>
                  {s === 0 ? 'no slack' : `${s} % slack`}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            onClick={() => void setAll()}
            className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink"
          >
            {limits.length === 0 ? 'Set from this plan' : 'Set again from this plan'}
          </button>
        </div>
      </div>
      {troubled || error ? <p className="text-worse">{troubled ?? error}</p> : null}
      {limits.length === 0 ? null : (
        <div className="min-h-0 flex-1 overflow-y-auto">
          <table className="w-full">
            <thead className="sticky top-0 bg-paper text-[11px] text-soft">
              <tr>
                <th className="py-1 pr-4 text-left font-normal">what is limited</th>
                <th className="py-1 pr-4 text-left font-normal">under</th>
                <th className="py-1 pr-4 text-right font-normal">at most</th>
                <th className="py-1 pr-4 text-right font-normal">this plan</th>
                <th className="py-1">
                  <span className="sr-only">remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {limits.map((limit, at) => (
                <Row
                  // biome-ignore lint/suspicious/noArrayIndexKey: two limits may be the same but for their amount
                  key={at}
                  limit={limit}
                  state={states[at]}
                  onMost={(most) => change(limits.with(at, { ...limit, most }), `limit ${limitSubject(limit)}`)}
                  onRemove={() => change(limits.toSpliced(at, 1), `remove the limit of ${limitSubject(limit)}`)}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}

/** People write kB; the limit holds bytes. */
const SCALE = { ms: 1, bytes: 1000, count: 1 };

function Row({
  limit,
  state,
  onMost,
  onRemove,
}: {
  limit: Limit;
  state: LimitState | undefined;
  onMost: (most: number) => void;
  onRemove: () => void;
}) {
  const unit = MEASURES[limit.measure].unit;
  const scale = SCALE[unit];
  const subject = limitSubject(limit);
  const take = (field: HTMLInputElement) => {
    const most = Number(field.value) * scale;
    if (field.value.trim() !== '' && most >= 0 && most !== limit.most) onMost(most);
    else field.value = String(limit.most / scale);
  };
  const over = state?.state === 'broken';
  return (
    <tr className="hover:bg-band">
      <th scope="row" className={`${CELL} max-w-72 truncate`} title={subject}>
        {subject}
      </th>
      <td className={`${CELL} text-soft`}>
        {linkOf(limit.link).name}, {deviceOf(limit.device).name}, {limit.cache}
      </td>
      <td className={`${CELL} text-right whitespace-nowrap`}>
        <input
          key={limit.most}
          type="number"
          min={0}
          step="any"
          defaultValue={limit.most / scale}
          aria-label={`${subject}, at most`}
          onBlur={(event) => take(event.target)}
          onKeyDown={(event) => event.key === 'Enter' && take(event.currentTarget)}
          className="w-20 rounded border border-line bg-sheet px-1 text-right"
        />
        <span className="ml-1 inline-block w-5 text-left text-soft">
          {unit === 'bytes' ? 'kB' : unit === 'ms' ? 'ms' : ''}
        </span>
      </td>
      <td className={`${CELL} text-right whitespace-nowrap ${over || state?.state === 'missing' ? 'text-worse' : ''}`}>
        {state === undefined
          ? '…'
          : state.state === 'missing'
            ? 'not there any more'
            : `${over ? '▴ ' : ''}${amountWords(limit.measure, state.value)}`}
      </td>
      <td className={CELL}>
        <button
          type="button"
          onClick={onRemove}
          aria-label={`Remove the limit of ${subject}`}
          className="min-h-6 min-w-6 text-soft hover:text-worse"
        >
          ✕
        </button>
      </td>
    </tr>
  );
}
