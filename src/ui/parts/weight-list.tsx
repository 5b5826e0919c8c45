'use client';

import { NumberField } from './field.tsx';
import { percent } from './format.ts';

const MOST = 1_000_000;

/** Things with a weight each, in any unit, and the share that it comes to. */
export function WeightList({
  of,
  weights,
  onTake,
}: {
  of: readonly { id: string; name: string }[];
  weights: Record<string, number>;
  onTake: (weights: Record<string, number>) => void;
}) {
  const weight = (id: string) => weights[id] ?? 0;
  const all = of.reduce((sum, o) => sum + weight(o.id), 0);
  return (
    <ul className="grid gap-1">
      {of.map((o) => (
        <li key={o.id} className="flex items-center justify-between gap-2">
          <span className={`min-w-0 truncate ${weight(o.id) > 0 ? '' : 'text-soft'}`}>{o.name}</span>
          <span className="flex items-center gap-2">
            <NumberField
              bare
              label={`weight of ${o.name}`}
              unit=""
              most={MOST}
              value={weight(o.id)}
              onTake={(next) => onTake({ ...weights, [o.id]: next })}
            />
            <span className="w-10 text-right text-soft">{all > 0 ? percent(weight(o.id) / all) : '–'}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
