'use client';

import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { GrainPoint } from '../../../../core/explain/granularity.ts';
import { MEASURES } from '../../../../core/vocabulary/measures.ts';
import { AsTable } from '../../../parts/as-table.tsx';
import { size, time } from '../../../parts/format.ts';

const SHOWN = ['requests', 'first content', 'interactive', 'start bytes'] as const;

/** A way of cutting in words. */
export function grainWords({ perModule, floor }: Pick<GrainPoint, 'perModule' | 'floor'>): string {
  if (perModule) return 'per module';
  if (floor === 0) return 'as they come';
  return floor === Number.MAX_SAFE_INTEGER ? 'one file' : `≥ ${size(floor)}`;
}

/** Start time and total bytes from one file per module to one file; the present plan is marked. */
export function GrainCurve({ points, onPick }: { points: GrainPoint[]; onPick: (point: GrainPoint) => void }) {
  const data = points.map((p) => ({ ...p, words: grainWords(p) }));
  const here = data.find((p) => p.present);
  const axis = { fontSize: 11, fill: 'var(--soft)' };
  return (
    <figure>
      <div className="h-56" aria-hidden="true">
        <ResponsiveContainer width="100%" height="100%">
          <LineChart
            accessibilityLayer={false}
            data={data}
            margin={{ top: 16, right: 12, left: 4, bottom: 4 }}
            onClick={(state) => {
              const at = Number(state.activeTooltipIndex);
              if (data[at]) onPick(data[at]);
            }}
          >
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="words"
              tick={axis}
              interval={0}
              angle={-28}
              textAnchor="end"
              height={56}
              stroke="var(--line)"
            />
            <YAxis
              yAxisId="time"
              tick={axis}
              tickFormatter={time}
              stroke="var(--line)"
              width={52}
              domain={['auto', 'auto']}
            />
            <YAxis
              yAxisId="bytes"
              orientation="right"
              tick={axis}
              tickFormatter={size}
              stroke="var(--line)"
              width={56}
              domain={['auto', 'auto']}
            />
            <Tooltip
              contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--line)', fontSize: 12 }}
              labelStyle={{ color: 'var(--ink)', fontWeight: 600 }}
              itemStyle={{ color: 'var(--ink)' }}
              formatter={(value, name) => [name === 'all files' ? size(Number(value)) : time(Number(value)), name]}
            />
            {here ? (
              <ReferenceLine
                yAxisId="time"
                x={here.words}
                stroke="var(--ink)"
                strokeDasharray="3 3"
                label={{ value: 'this plan', position: 'top', fontSize: 11, fill: 'var(--ink)' }}
              />
            ) : null}
            <Line
              yAxisId="time"
              dataKey="interactive"
              name="interactive"
              stroke="var(--needed)"
              strokeWidth={2}
              dot={{ r: 3 }}
              isAnimationActive={false}
            />
            <Line
              yAxisId="time"
              dataKey="firstContent"
              name="first content"
              stroke="var(--needed)"
              strokeDasharray="5 3"
              dot={false}
              isAnimationActive={false}
            />
            <Line
              yAxisId="bytes"
              dataKey="totalBytes"
              name="all files"
              stroke="var(--on-demand)"
              strokeDasharray="1 3"
              strokeWidth={2}
              dot={{ r: 2 }}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="flex gap-5 text-[12px] text-soft">
        <span>
          <span aria-hidden="true" className="mr-1.5 inline-block w-5 border-t-2 border-needed align-middle" />
          interactive
        </span>
        <span>
          <span
            aria-hidden="true"
            className="mr-1.5 inline-block w-5 border-t border-dashed border-needed align-middle"
          />
          first content
        </span>
        <span>
          <span
            aria-hidden="true"
            className="mr-1.5 inline-block w-5 border-t-2 border-dotted border-on-demand align-middle"
          />
          all files together, right scale
        </span>
      </figcaption>
      <AsTable
        className="mt-1"
        heads={['files', 'chunks', ...SHOWN.map((m) => MEASURES[m].name), 'all files', 'choose']}
        rows={data.map((p) => [
          p.words,
          p.chunks,
          p.requests,
          time(p.firstContent),
          time(p.interactive),
          size(p.startBytes),
          size(p.totalBytes),
          p.present ? (
            'this plan'
          ) : (
            <button
              key="cut"
              type="button"
              className="underline"
              onClick={() => onPick(p)}
              aria-label={`cut so: ${p.words}`}
            >
              cut so
            </button>
          ),
        ])}
      />
    </figure>
  );
}
