'use client';

import type { CurvePoint } from '../../../core/choose/types.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { tickWords } from '../../parts/axis.ts';
import { size, time } from '../../parts/format.ts';
import { LineChart } from '../../parts/line-chart/line-chart.tsx';

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
  return (
    <figure>
      <LineChart
        height="h-52"
        rows={curve.map(({ waste, gain }) => ({ waste, gain }))}
        lines={[{ of: 'gain', name: 'gain', stroke: 'var(--needed)', width: 2, dots: 3, steps: true }]}
        across={{ of: 'waste', write: size }}
        left={{ write: time, tick: tickWords }}
        picked={{ across: picked.waste, value: picked.gain }}
        onPick={(row) => onPick(curve[row])}
      />
      <label className="flex items-center gap-3 pl-14">
        <span className="text-soft">less waste</span>
        <input
          type="range"
          className="min-w-0 flex-1"
          aria-label="Point on the curve of gain against waste"
          aria-valuetext={`${picked.turns.length} changes: saves ${time(picked.gain)}, wastes ${size(picked.waste)} per visit`}
          min={0}
          max={curve.length - 1}
          value={curve.indexOf(picked)}
          onChange={(event) => onPick(curve[Number(event.target.value)])}
        />
        <span className="text-soft">more gain</span>
      </label>
      <figcaption className="mt-1">
        {picked.turns.length} {picked.turns.length === 1 ? 'change' : 'changes'}: saves{' '}
        <span className="font-medium">{time(picked.gain)}</span> per visit; {size(picked.waste)} fetched for nothing.
      </figcaption>
      <AsTable
        heads={['changes', 'saves a visit', 'wastes a visit']}
        rows={curve.map((p) => [p.turns.length, time(p.gain), size(p.waste)])}
      />
    </figure>
  );
}
