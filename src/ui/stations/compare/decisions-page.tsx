'use client';

import { useState } from 'react';
import type { EarnedTable } from '../../../core/compare/earned.ts';
import { decisionWords, planDifference } from '../../../core/plan/decisions.ts';
import type { Plan } from '../../../core/plan/types.ts';
import { LANDING_MEASURES, type LandingMeasure, MEASURES } from '../../../core/vocabulary/measures.ts';
import { Change } from '../../parts/change.tsx';
import { conditionsWords, useComparedPlans } from '../../state/compare.ts';
import { longWork } from '../../state/long-work.ts';
import { useWork } from '../../state/work.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';
import { changeWords, writerOf } from './measures.ts';
import { TakeTables } from './take-along.tsx';

/** In which decisions the plans differ, and what each decision of a plan earned. */
export function DecisionsPage() {
  const plans = useComparedPlans();
  const withDecisions = plans.filter((p) => p.decisions.length > 0);
  const [chosen, setChosen] = useState<string | null>(null);
  const [measure, setMeasure] = useState<LandingMeasure>('interactive');
  const open = usePlan().name;
  const plan = withDecisions.find((p) => p.name === (chosen ?? open)) ?? withDecisions.at(-1);
  return (
    <div className="station-grid grid h-full min-h-0 grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <section aria-label="Gain by decision" className="min-h-0 overflow-auto px-4 py-4">
        {plan ? (
          <>
            <div className="mb-2 flex flex-wrap items-center gap-3">
              <h2 className="text-[15px] font-semibold">Gain by decision</h2>
              <select
                aria-label="Plan"
                value={plan.name}
                onChange={(event) => setChosen(event.target.value)}
                className="max-w-48 rounded border border-line bg-sheet px-1 py-0.5"
              >
                {withDecisions.map((p) => (
                  <option key={p.name}>{p.name}</option>
                ))}
              </select>
              <select
                aria-label="Measure"
                value={measure}
                onChange={(event) => setMeasure(event.target.value as LandingMeasure)}
                className="rounded border border-line bg-sheet px-1 py-0.5"
              >
                {LANDING_MEASURES.map((m) => (
                  <option key={m} value={m}>
                    {MEASURES[m].name}
                  </option>
                ))}
              </select>
            </div>
            <EarnedList plan={plan} measure={measure} />
          </>
        ) : (
          <>
            <h2 className="text-[15px] font-semibold">Gain by decision</h2>
            <p className="mt-1 text-soft">
              None of these plans has a decision yet. Detach an import under Split, or take a finding.
            </p>
          </>
        )}
      </section>
      <section aria-label="Decisions that differ" className="min-h-0 overflow-auto border-l border-line px-4 py-4">
        <h2 className="text-[15px] font-semibold">Decisions that differ</h2>
        {plans.slice(1).map((p) => (
          <Differences key={p.name} plan={p} from={plans[0]} />
        ))}
      </section>
    </div>
  );
}

function EarnedList({ plan, measure }: { plan: Plan; measure: LandingMeasure }) {
  const conditions = useConditions();
  const route = useWorkbench((s) => s.route);
  const app = useWorkbench((s) => s.app);
  const [found, setFound] = useState<{ of: Plan; table: EarnedTable } | null>(null);
  const [error, setError] = useState<string | null>(null);
  // Another snapshot in the worker (app) gives other figures.
  useWork(
    async (wanted) => {
      setError(null);
      const table = await (await longWork()).compare.earned(plan, route, conditions);
      if (wanted()) setFound({ of: plan, table });
    },
    (reason) => setError(reason.message),
    [plan, route, conditions, app],
  );
  if (error) return <p className="text-worse">{error}</p>;
  if (!found || found.of.name !== plan.name)
    return <p className="text-soft">Leaving each decision out, and taking each by itself.</p>;
  const { total } = found.table;
  const write = writerOf(measure);
  const sorted = [...found.table.decisions].sort((a, b) => a.last[measure] - b.last[measure]);
  const largest = Math.max(1, ...sorted.flatMap((d) => [Math.abs(d.alone[measure]), Math.abs(d.last[measure])]));
  return (
    <>
      <div className="mb-2 flex items-start justify-between gap-4">
        <p className="text-soft">
          Landing on {route}, {conditionsWords(conditions)}. By itself: the app as built with this decision only. On
          top: what the plan would lose without it. They differ where decisions need, or stand in for, one another.
        </p>
        <TakeTables
          file="compare-earned"
          tables={() => [
            {
              title: `Gain by decision: ${MEASURES[measure].name}, landing on ${route}`,
              head: ['decision', 'by itself', 'on top of the others'],
              rows: [
                ...sorted.map((d) => [
                  d.words,
                  changeWords(measure, d.alone[measure]),
                  changeWords(measure, d.last[measure]),
                ]),
                ['all of them', '', changeWords(measure, total[measure])],
              ],
            },
          ]}
        />
      </div>
      <table className="w-full">
        <thead className="text-[11px] text-soft">
          <tr>
            <th className="py-1 text-left font-normal">decision</th>
            <th className="w-36 py-1 pl-3 text-left font-normal">by itself</th>
            <th className="w-36 py-1 pl-3 text-left font-normal">on top of the others</th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((d) => (
            <tr key={d.subject} className="hover:bg-band">
              <th scope="row" className="border-t border-line py-1 text-left font-normal">
                {d.words}
              </th>
              <Earned value={d.alone[measure]} largest={largest} write={write} />
              <Earned value={d.last[measure]} largest={largest} write={write} />
            </tr>
          ))}
          <tr>
            <th scope="row" className="border-t-2 border-line py-1 text-left font-semibold">
              all of them
            </th>
            <td className="border-t-2 border-line" />
            <td className="border-t-2 border-line py-1 pl-3 font-semibold">
              <Change value={total[measure]} format={write} />
            </td>
          </tr>
        </tbody>
      </table>
    </>
  );
}

/** A change with its size as a bar: filled where it is a gain, an outline where it is a loss. */
function Earned({ value, largest, write }: { value: number; largest: number; write: (v: number) => string }) {
  const share = Number.isFinite(value) ? Math.abs(value) / largest : 0;
  return (
    <td className="border-t border-line py-1 pl-3">
      <Change value={value} format={write} />
      <span
        aria-hidden="true"
        className={`mt-0.5 block h-1.5 border ${value <= 0 ? 'border-better bg-better' : 'border-worse'}`}
        style={{ width: `${share * 100}%`, visibility: share < 0.005 ? 'hidden' : 'visible' }}
      />
    </td>
  );
}

function Differences({ plan, from }: { plan: Plan; from: Plan }) {
  const { added, missing, changed } = planDifference(plan, from);
  const lines = [
    ...added.map((d) => ({ sign: '+', words: decisionWords(d) })),
    ...missing.map((d) => ({ sign: '−', words: decisionWords(d) })),
    ...changed.map(({ now, was }) => ({ sign: '~', words: `${decisionWords(now)}, there ${decisionWords(was)}` })),
  ];
  return (
    <>
      <h3 className="mt-3 mb-1 font-semibold">
        {plan.name} <span className="font-normal text-soft">against {from.name}</span>
      </h3>
      {lines.length === 0 ? <p className="text-soft">The same decisions.</p> : null}
      <ul>
        {lines.map((l) => (
          <li key={`${l.sign}${l.words}`} className="flex gap-2 border-t border-line py-1">
            <span className="w-3 shrink-0 font-mono text-soft" title={SIGNS[l.sign]}>
              {l.sign}
              <span className="sr-only"> {SIGNS[l.sign]}</span>
            </span>
            {l.words}
          </li>
        ))}
      </ul>
    </>
  );
}

const SIGNS: Record<string, string> = { '+': 'more', '−': 'not here', '~': 'otherwise' };
