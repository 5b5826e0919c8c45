'use client';

import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { percentile } from '../../core/mix/percentile.ts';
import { percent, time } from './format.ts';

const POINTS = 40;

export interface PercentileLine {
  name: string;
  /** One value for each visit, in ms. */
  values: readonly number[];
  stroke: string;
  dash?: string | undefined;
  width: number;
}

/** How many visits are faster than a time, a curve for each line; to the right, the slower visits. */
export function PercentileLines({ lines }: { lines: readonly PercentileLine[] }) {
  const data = Array.from({ length: POINTS - 1 }, (_, i) => {
    const share = (i + 1) / POINTS;
    return { share, ...Object.fromEntries(lines.map((l, at) => [`l${at}`, percentile(l.values, share)])) };
  });
  const axis = { fontSize: 11, fill: 'var(--soft)' };
  return (
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
          {lines.map((l, at) => (
            <Line
              key={l.name}
              dataKey={`l${at}`}
              name={l.name}
              stroke={l.stroke}
              strokeWidth={l.width}
              strokeDasharray={l.dash}
              dot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
