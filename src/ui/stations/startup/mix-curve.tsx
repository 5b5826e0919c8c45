'use client';

import type { MixResult } from '../../../worker/views.ts';
import { PercentileLines } from '../../parts/percentile-lines.tsx';

/** Percentile curves: how many visits are faster than a time, of the plan and of the baseline. */
export function MixCurve({ result, plan }: { result: MixResult; plan: string }) {
  const of = (drawn: MixResult['plan'], key: 'interactive' | 'firstContent') => drawn.map((d) => d[key]);
  return (
    <figure>
      <PercentileLines
        lines={[
          {
            name: 'interactive, baseline',
            values: of(result.baseline, 'interactive'),
            stroke: 'var(--faint)',
            dash: '5 4',
            width: 1,
          },
          {
            name: `interactive, ${plan}`,
            values: of(result.plan, 'interactive'),
            stroke: 'var(--needed)',
            width: 2,
          },
          {
            name: `first content, ${plan}`,
            values: of(result.plan, 'firstContent'),
            stroke: 'var(--on-demand)',
            width: 1,
          },
        ]}
      />
      <figcaption className="text-soft">
        Thick: interactive with {plan}; broken: interactive as built; thin: first content with {plan}. To the right, the
        slower visits.
      </figcaption>
    </figure>
  );
}
