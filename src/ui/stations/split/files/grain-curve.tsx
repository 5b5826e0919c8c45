'use client';

import type { GrainPoint } from '../../../../core/explain/granularity.ts';
import { MEASURES } from '../../../../core/vocabulary/measures.ts';
import { AsTable } from '../../../parts/as-table.tsx';
import { tickWords } from '../../../parts/axis.ts';
import { size, time } from '../../../parts/format.ts';
import { LineChart } from '../../../parts/line-chart/line-chart.tsx';

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
  return (
    <figure>
      <LineChart
        height="h-56"
        rows={data.map(({ words, interactive, firstContent, totalBytes }) => ({
          ...{ words, interactive, firstContent, totalBytes },
        }))}
        lines={[
          { of: 'interactive', name: MEASURES.interactive.name, stroke: 'var(--needed)', width: 2, dots: 3 },
          { of: 'firstContent', name: MEASURES['first content'].name, stroke: 'var(--needed)', dash: '5 3' },
          {
            ...{ of: 'totalBytes', name: 'all files', axis: 'right', stroke: 'var(--on-demand)' },
            ...{ dash: '1 3', width: 2, dots: 2 },
          },
        ]}
        across={{ of: 'words', names: true }}
        left={{ write: time, tick: tickWords }}
        right={{ write: size }}
        {...(here ? { mark: { at: here.words, words: 'this plan' } } : {})}
        tell={String}
        onPick={(row) => onPick(data[row])}
      />
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
              className="min-h-6 min-w-6 underline"
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
