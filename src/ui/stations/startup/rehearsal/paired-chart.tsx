'use client';

import { scaleLinear } from 'd3-scale';
import { layUnder } from '../../../../core/recordings/match.ts';
import type { RecordedRequest } from '../../../../core/recordings/types.ts';
import { originOf } from '../../../../core/text/address.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { time } from '../../../parts/format.ts';
import { GUTTER, PairedRow, ROW } from './paired-row.tsx';
import { PairedParts, PairedThreads } from './paired-tracks.tsx';

const RIGHT = 76;
const TOP = 22;
const LANE = 18;

/** Every request and part twice on one axis: predicted above, rehearsed below it. */
export function PairedChart({ found, width }: { found: RehearsedView; width: number }) {
  const { view, run } = found;
  const { load, contentLoaded } = run.moments;
  const laid = layUnder(view.timeline, { title: '', requests: run.requests, contentLoaded, load, leftOut: [] });
  const rows: { name: string; predicted: number; rehearsed: RecordedRequest | null }[] = [
    ...view.timeline.requests.map((r, i) => ({ name: r.name, predicted: i, rehearsed: laid.of[i] })),
    ...laid.extra.map((e) => ({ name: nameOf(e.address), predicted: -1, rehearsed: e })),
  ];
  const parts = run.parts.filter((p) => p.shown !== null);
  const partsTop = TOP + rows.length * ROW + 24;
  const threadTop = partsTop + parts.length * LANE + 26;
  const height = threadTop + 92;
  const until = lastInstant(found);
  const x = scaleLinear([0, until], [GUTTER, Math.max(GUTTER + 120, width - RIGHT)]);
  return (
    <figure>
      <figcaption className="mb-1 flex gap-5 text-soft">
        <Key words="predicted" mark={<rect width="26" height="7" y="3" fill="var(--needed)" />} />
        <Key
          words="rehearsed, the run in the middle"
          mark={<rect x="0.5" width="25" height="6" y="3.5" fill="var(--sheet)" stroke="var(--ink)" />}
        />
      </figcaption>
      <svg
        width={width}
        height={height}
        className="block"
        role="img"
        aria-label="Requests, parts and thread, predicted and rehearsed"
      >
        {x.ticks(7).map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={TOP - 4} y2={height - 8} stroke="var(--line)" />
            <text x={x(t)} y={12} fontSize={11} textAnchor="middle" fill="var(--soft)">
              {t >= 1000 ? `${t / 1000} s` : time(t)}
            </text>
          </g>
        ))}
        {rows.map(({ name, predicted, rehearsed }, i) => (
          <PairedRow
            key={`${name}${predicted}${rehearsed?.discovered ?? ''}`}
            name={name}
            predicted={view.timeline.requests[predicted] ?? null}
            rehearsed={rehearsed}
            y={TOP + i * ROW}
            x={x}
          />
        ))}
        <PairedParts found={found} parts={parts} top={partsTop} lane={LANE} x={x} />
        <PairedThreads found={found} top={threadTop} x={x} until={until} />
      </svg>
    </figure>
  );
}

function Key({ words, mark }: { words: string; mark: React.ReactNode }) {
  return (
    <span className="flex items-center gap-1.5">
      <svg width="26" height="13" aria-hidden="true">
        <title>{words}</title>
        {mark}
      </svg>
      {words}
    </span>
  );
}

function nameOf(address: string): string {
  return address.slice(originOf(address).length).replace(/^\/(assets\/)?/, '');
}

/** The axis ends with the last of what both have until the landing is over. */
function lastInstant({ view, run }: RehearsedView): number {
  const ends = [...view.timeline.requests, ...run.requests, ...run.tasks].map((r) =>
    Number.isFinite(r.end) ? r.end : 0,
  );
  return Math.max(100, ...ends) * 1.03;
}
