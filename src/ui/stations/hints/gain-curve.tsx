'use client';

import { CartesianGrid, Line, LineChart, ReferenceDot, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { CurvePoint } from '../../../core/choose/types.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { size, time } from '../../parts/format.ts';

/** Gain against waste: each point a set of changes; one of them is picked. */
export function GainCurve({
  curve,
  picked,
  onPick,
}: {
  curve: CurvePoint[];
  picked: CurvePoint;
  onPick: (point: CurvePoint) => void;
}) {
  const axis = { fontSize: 11, fill: 'var(--soft)' };
  return (
    <figure>
      <div className="h-52" aria-hidden="true">
        <ResponsiveContainer width="100%" height="100%">
          <LineChart
            accessibilityLayer={false}
            data={curve}
            margin={{ top: 10, right: 20, left: 0, bottom: 4 }}
            onClick={({ activeIndex }) => {
              const point = curve[Number(activeIndex)];
              if (point) onPick(point);
            }}
          >
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="waste"
              type="number"
              domain={['dataMin', 'dataMax']}
              tickFormatter={size}
              tick={axis}
              stroke="var(--line)"
            />
            <YAxis tick={axis} tickFormatter={time} domain={[0, 'dataMax']} stroke="var(--line)" width={56} />
            <Line
              dataKey="gain"
              type="stepAfter"
              stroke="var(--needed)"
              strokeWidth={2}
              dot={{ r: 3 }}
              isAnimationActive={false}
            />
            <ReferenceDot x={picked.waste} y={picked.gain} r={6} fill="var(--ink)" stroke="var(--paper)" />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <label className="flex items-center gap-3 pl-14">
        <span className="text-soft">less waste</span>
        <input
          type="range"
          className="min-w-0 flex-1"
          aria-label="Point on the curve of gain against waste"
          aria-valuetext={`${picked.chosen.length} changes: saves ${time(picked.gain)}, wastes ${size(picked.waste)} per visit`}
          min={0}
          max={curve.length - 1}
          value={curve.indexOf(picked)}
          onChange={(event) => onPick(curve[Number(event.target.value)])}
        />
        <span className="text-soft">more gain</span>
      </label>
      <figcaption className="mt-1">
        {picked.chosen.length} {picked.chosen.length === 1 ? 'change' : 'changes'}: saves{' '}
        <span className="font-medium">{time(picked.gain)}</span> per visit; {size(picked.waste)} fetched for nothing.
      </figcaption>
      <AsTable
        heads={['changes', 'saves a visit', 'wastes a visit']}
        rows={curve.map((p) => [p.chosen.length, time(p.gain), size(p.waste)])}
      />
    </figure>
  );
}
