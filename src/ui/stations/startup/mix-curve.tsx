'use client';

import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { percentile } from '../../../core/mix/percentile.ts';
import type { MixResult } from '../../../worker/views.ts';
import { percent, time } from '../../parts/format.ts';

const POINTS = 40;

/** Percentile curves: how many visits are faster than a time, of the plan and of the baseline. */
export function MixCurve({ result, plan }: { result: MixResult; plan: string }) {
  const data = Array.from({ length: POINTS - 1 }, (_, i) => {
    const share = (i + 1) / POINTS;
    const at = (of: MixResult['plan'], key: 'firstContent' | 'interactive') =>
      percentile(
        of.map((d) => d[key]),
        share,
      );
    return {
      share,
      was: at(result.baseline, 'interactive'),
      interactive: at(result.plan, 'interactive'),
      firstContent: at(result.plan, 'firstContent'),
    };
  });
  const axis = { fontSize: 11, fill: 'var(--soft)' };
  return (
    <figure>
      <div className="h-64" aria-hidden="true">
        <ResponsiveContainer width="100%" height="100%">
          <LineChart accessibilityLayer={false} data={data} margin={{ top: 8, right: 16, left: 4, bottom: 4 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="share"
              type="number"
              domain={[0, 1]}
              ticks={[0, 0.25, 0.5, 0.75, 1]}
              tickFormatter={percent}
              tick={axis}
              stroke="var(--line)"
            />
            <YAxis tick={axis} tickFormatter={time} stroke="var(--line)" width={56} />
            <Tooltip
              contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--line)', fontSize: 12 }}
              formatter={(value) => time(Number(value))}
              labelFormatter={(share) => `${percent(Number(share))} of visits are faster`}
            />
            <Line
              dataKey="was"
              name="interactive, baseline"
              stroke="var(--faint)"
              strokeDasharray="5 4"
              dot={false}
              isAnimationActive={false}
            />
            <Line
              dataKey="interactive"
              name={`interactive, ${plan}`}
              stroke="var(--needed)"
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
            <Line
              dataKey="firstContent"
              name={`first content, ${plan}`}
              stroke="var(--on-demand)"
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="text-soft">
        Thick: interactive with {plan}; broken: interactive as built; thin: first content with {plan}. To the right, the
        slower visits.
      </figcaption>
    </figure>
  );
}
