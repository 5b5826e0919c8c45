'use client';

import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Drawn } from '../../../core/mix/mix.ts';
import { percentile } from '../../../core/mix/percentile.ts';
import { percent, time } from '../../parts/format.ts';
import { PLAN_LINES } from './lines.ts';

const POINTS = 40;

/** One line per plan: how many visits are faster than a time. */
export function Curves({
  plans,
  drawn,
  measure,
  words,
}: {
  plans: string[];
  drawn: Drawn[][];
  measure: keyof Drawn;
  words: string;
}) {
  const data = Array.from({ length: POINTS - 1 }, (_, i) => {
    const share = (i + 1) / POINTS;
    const values = drawn.map((d) =>
      percentile(
        d.map((one) => one[measure]),
        share,
      ),
    );
    return { share, ...Object.fromEntries(values.map((v, p) => [`p${p}`, v])) };
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
            {plans.map((name, p) => (
              <Line
                key={name}
                dataKey={`p${p}`}
                name={name}
                stroke={PLAN_LINES[p].stroke}
                strokeWidth={PLAN_LINES[p].width}
                strokeDasharray={PLAN_LINES[p].dash}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="flex flex-wrap gap-x-5 text-soft">
        <span>{words}; to the right, the slower visits</span>
        {plans.map((name, p) => (
          <span key={name} className="flex items-center gap-1.5 text-ink">
            <svg width="28" height="8" aria-hidden="true">
              <line
                x1="0"
                x2="28"
                y1="4"
                y2="4"
                stroke={PLAN_LINES[p].stroke}
                strokeWidth={PLAN_LINES[p].width}
                strokeDasharray={PLAN_LINES[p].dash}
              />
            </svg>
            {name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
