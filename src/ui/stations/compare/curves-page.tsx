'use client';

import { useRef, useState } from 'react';
import type { Drawn } from '../../../core/mix/mix.ts';
import { percentile } from '../../../core/mix/percentile.ts';
import type { Plan } from '../../../core/plan/types.ts';
import { drawnMeasures } from '../../parts/drawn-measures.ts';
import { count, percent, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { PERCENTILES, PercentileTable } from '../../parts/percentile-table.tsx';
import { useComparedPlans } from '../../state/compare.ts';
import { longWork } from '../../state/long-work.ts';
import { type MixChoice, useMix } from '../../state/mix.ts';
import { useWork } from '../../state/work.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { Curves } from './curves.tsx';
import { changeWords } from './measures.ts';
import { TakePicture, TakeTables } from './take-along.tsx';

export const CURVES = drawnMeasures();

/** The drawn visits of each plan, as far as they have come: shown once all of them are there. */
function useDrawn(plans: Plan[], mix: MixChoice, route: string) {
  const app = useWorkbench((s) => s.app);
  const [found, setFound] = useState<{ plans: Plan[]; drawn: Drawn[][] } | null>(null);
  const [done, setDone] = useState(0);
  const [error, setError] = useState<string | null>(null);
  // Another snapshot in the worker (app) gives other visits.
  useWork(
    async (wanted) => {
      const wish = { ...mix, returning: mix.returning / 100, spread: mix.spread / 100 };
      setError(null);
      const worker = await longWork();
      for (let from = 0; wanted(); ) {
        const step = await worker.compare.mixOver(plans, route, wish, from);
        if (!wanted()) return;
        from = step.drawn;
        setDone(from);
        if (from >= mix.visits) return setFound({ plans, drawn: step.plans });
      }
    },
    (reason) => setError(reason.message),
    [plans, mix, route, app],
  );
  return { found, done, error };
}

/** Percentiles of one landing over the mix of visitors, every plan under the same drawn visits. */
export function CurvesPage() {
  const plans = useComparedPlans();
  const mix = useMix();
  const route = useWorkbench((s) => s.route);
  const { found, done, error } = useDrawn(plans, mix, route);
  const [chosen, setChosen] = useState<(typeof CURVES)[number]['key']>('interactive');
  const box = useRef<HTMLDivElement>(null);
  const words = CURVES.find((c) => c.key === chosen)!.words;
  const at = (drawn: Drawn[], share: number) =>
    percentile(
      drawn.map((d) => d[chosen]),
      share,
    );
  if (error) return <Message title="This mix can’t be predicted">{error}</Message>;
  if (!found)
    return (
      <p className="p-4 text-soft">
        Predicting the first visits: {count(done)} of {count(mix.visits)}.
      </p>
    );
  return (
    <div className="h-full overflow-auto px-4 py-4">
      <div className="mb-2 flex items-start justify-between gap-4">
        <div>
          <h2 className="text-[15px] font-semibold">Landings on {route} over the mix of visitors</h2>
          <p className="text-soft" aria-live="polite">
            {done >= mix.visits
              ? `${count(mix.visits)} drawn visits, the same for every plan. The mix is set at the Startup station.`
              : `drawing ${count(done)} of ${count(mix.visits)} visits …`}
          </p>
        </div>
        <div className="flex gap-2">
          <select
            aria-label="Measure"
            value={chosen}
            onChange={(event) => setChosen(event.target.value as typeof chosen)}
            className="rounded border border-line bg-sheet px-1"
          >
            {CURVES.map((c) => (
              <option key={c.key} value={c.key}>
                {c.words}
              </option>
            ))}
          </select>
          <TakePicture drawing={() => box.current?.querySelector('[data-chart] svg') ?? null} file="compare-curves" />
        </div>
      </div>
      <div ref={box}>
        <Curves plans={found.plans.map((p) => p.name)} drawn={found.drawn} measure={chosen} words={words} />
      </div>
      <div className="mt-3 mb-1 flex justify-end">
        <TakeTables
          file="compare-mix"
          tables={() => [
            {
              title: `${words}, landings on ${route} over the mix`,
              head: ['share of visits faster than', ...PERCENTILES.map(percent)],
              rows: found.plans.map((p, i) => [
                p.name,
                ...PERCENTILES.map((s) => {
                  const value = at(found.drawn[i], s);
                  return i === 0
                    ? time(value)
                    : `${time(value)} (${changeWords('wait', value - at(found.drawn[0], s))})`;
                }),
              ]),
            },
          ]}
        />
      </div>
      <PercentileTable
        title={`${words}: share of visits faster than`}
        rows={found.plans.map(({ name }, i) => ({
          name,
          values: found.drawn[i].map((d) => d[chosen]),
          against: i === 0 ? null : found.drawn[0].map((d) => d[chosen]),
        }))}
      />
    </div>
  );
}
