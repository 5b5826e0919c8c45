'use client';

import type { Drawn } from '../../../core/mix/mix.ts';
import { PercentileLines } from '../../parts/percentile-lines.tsx';
import { PLAN_LINES } from './lines.ts';

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
  return (
    <figure>
      <PercentileLines
        lines={plans.map((name, p) => ({ name, values: drawn[p].map((d) => d[measure]), ...PLAN_LINES[p] }))}
      />
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
