'use client';

import { percentile } from '../../core/mix/percentile.ts';
import { tickWords } from './axis.ts';
import { percent, time } from './format.ts';
import { LineChart } from './line-chart/line-chart.tsx';

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
  return (
    <LineChart
      height="h-64"
      rows={data}
      lines={lines.map(({ values, ...line }, at) => ({ ...line, of: `l${at}` }))}
      across={{ of: 'share', write: percent, domain: [0, 1], ticks: [0, 0.25, 0.5, 0.75, 1] }}
      left={{ write: time, tick: tickWords }}
      tell={(share) => `${percent(Number(share))} of visits are faster`}
    />
  );
}
