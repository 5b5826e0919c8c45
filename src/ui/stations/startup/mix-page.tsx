'use client';

import { useState } from 'react';
import { DEVICES, LINKS } from '../../../core/sim/conditions.ts';
import { analyst } from '../../../worker/client.ts';
import type { MixResult } from '../../../worker/views.ts';
import { drawnMeasures } from '../../parts/drawn-measures.ts';
import { NumberField } from '../../parts/field.tsx';
import { count } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { PercentileTable } from '../../parts/percentile-table.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { WeightList } from '../../parts/weight-list.tsx';
import { useMix } from '../../state/mix.ts';
import { useWork } from '../../state/work.ts';
import { storedPlan, usePlan, useWorkbench } from '../../state/workbench.ts';
import { MixCurve } from './mix-curve.tsx';

const METRICS = drawnMeasures();
const MOST_VISITS = 5000;

/** The landing over a mix of links, devices and caches: percentiles of the plan against the baseline. */
export function MixPage() {
  const mix = useMix();
  const plan = usePlan();
  const named = useWorkbench((s) => storedPlan(s)?.name) ?? 'Baseline';
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const [found, setFound] = useState<MixResult | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [done, setDone] = useState(0);
  // Another snapshot in the worker (app) gives another answer.
  useWork(
    async (wanted) => {
      const wish = { ...mix, returning: mix.returning / 100, spread: mix.spread / 100 };
      setError(null);
      for (let drawn = 0; wanted(); ) {
        const step = await analyst().startup.mix(plan, route, wish, drawn);
        if (!wanted()) return;
        drawn = step.drawn;
        setDone(drawn);
        if (drawn >= mix.visits) return setFound(step);
      }
    },
    (reason) => setError(reason.message),
    [mix, plan, route, app],
  );
  return (
    <StationGrid id="mix" aside={300}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        <h1 className="text-[15px] font-semibold">Landings on {route} over a mix of visitors</h1>
        <p className="mb-3 text-soft" aria-live="polite">
          {found && done >= mix.visits
            ? `${count(mix.visits)} drawn visits, the same for the plan and the baseline`
            : `drawing ${count(done)} of ${count(mix.visits)} visits …`}
        </p>
        {error ? (
          <Message title="This mix can’t be predicted">{error}</Message>
        ) : found ? (
          <>
            <MixCurve result={found} plan={named} />
            <Percentiles result={found} />
          </>
        ) : (
          <p className="h-64 text-soft">Predicting the first visits …</p>
        )}
      </div>
      <Aside label="The mix">
        <Weights title="Links" of={LINKS} weights={mix.links} onTake={(links) => useMix.setState({ links })} />
        <Weights
          title="Devices"
          of={DEVICES}
          weights={mix.devices}
          onTake={(devices) => useMix.setState({ devices })}
        />
        <h2 className="mt-5 mb-1.5 font-semibold">Visits</h2>
        <div className="grid gap-2">
          <NumberField
            label="Return with a warm cache"
            unit="%"
            most={100}
            value={mix.returning}
            onTake={(returning) => useMix.setState({ returning })}
          />
          <NumberField
            label="Differ from their profile by about"
            unit="%"
            most={100}
            value={mix.spread}
            onTake={(spread) => useMix.setState({ spread })}
          />
          <NumberField
            label="Drawn"
            unit="visits"
            least={20}
            most={MOST_VISITS}
            value={mix.visits}
            onTake={(visits) => useMix.setState({ visits: Math.round(visits) })}
          />
        </div>
      </Aside>
    </StationGrid>
  );
}

function Percentiles({ result }: { result: MixResult }) {
  return (
    <div className="mt-4">
      <PercentileTable
        title="share of visits faster than"
        rows={METRICS.map(({ key, words }) => ({
          name: words,
          values: result.plan.map((d) => d[key]),
          against: result.baseline.map((d) => d[key]),
        }))}
      />
    </div>
  );
}

function Weights({
  title,
  of,
  weights,
  onTake,
}: {
  title: string;
  of: readonly { id: string; name: string }[];
  weights: Record<string, number>;
  onTake: (weights: Record<string, number>) => void;
}) {
  return (
    <>
      <h2 className="mt-5 mb-1.5 font-semibold first:mt-0">{title}</h2>
      <WeightList of={of} weights={weights} onTake={onTake} />
    </>
  );
}
