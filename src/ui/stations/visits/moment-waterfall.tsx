'use client';

import { useRef } from 'react';
import type { MomentView, VisitView } from '../../../worker/services/visits.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { size, time } from '../../parts/format.ts';
import { ROLES } from '../../parts/roles.tsx';
import { useWidth } from '../../parts/use-width.ts';
import { marksOf, type Scale } from './scale.ts';

const ROW = 18;
const NAME = 200;
const MOST = 40;

/** What travelled for one moment and what ran, on an axis of its own around the act. */
export function MomentWaterfall({ moment, page }: { moment: MomentView; page: VisitView['pages'][number] }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 640) - NAME;
  const own = moment.requests.map((i) => page.requests[i]);
  if (own.length === 0)
    return (
      <p className="px-4 py-3 text-soft">
        {moment.kind === 'other' ? 'Nothing travels for it.' : 'Nothing travels: all it needs was there before.'}
      </p>
    );
  const { scale, begins, ends } = scaleOf(moment, own, width);
  const tasks = page.tasks.filter(
    (t) => t.end - moment.act >= begins && t.start - moment.act <= ends && t.end > t.start,
  );
  // The table below has all of them.
  const drawn = own.slice(0, MOST);
  const height = 22 + drawn.length * ROW + 24;
  const x = (at: number) => scale.x(at - moment.act);
  return (
    <div ref={box} className="px-4 py-2">
      <svg width={width + NAME} height={height} role="img" aria-label={`${own.length} requests for ${moment.name}`}>
        {marksOf(scale, 8).map((ms) => (
          <g key={ms} transform={`translate(${NAME + scale.x(ms)} 0)`}>
            <line y1={16} y2={height} stroke={ms === 0 ? 'var(--ink)' : 'var(--line)'} />
            <text y={11} fontSize={11} textAnchor={scale.x(ms) < 30 ? 'start' : 'middle'} fill="var(--soft)">
              {ms === 0 ? (moment.kind === 'landing' ? 'navigation' : 'act') : signed(ms)}
            </text>
          </g>
        ))}
        {drawn.map((r, i) => (
          <MomentRow key={`${r.address} ${r.discovered}`} request={r} y={22 + i * ROW} x={x} />
        ))}
        <text x={0} y={height - 10} fontSize={12} fill="var(--soft)">
          thread
        </text>
        <g transform={`translate(${NAME} 0)`}>
          {tasks.map((t) => (
            <rect
              key={`${t.name} ${t.start}`}
              x={x(t.start)}
              y={height - 20}
              width={Math.max(1, x(t.end) - x(t.start))}
              height={12}
              fill="var(--needed-pale)"
              stroke="var(--needed)"
            >
              <title>{`${t.name}, ${time(t.end - t.start)}`}</title>
            </rect>
          ))}
        </g>
        {Number.isFinite(moment.wait) && moment.kind !== 'other' ? (
          <g transform={`translate(${NAME + scale.x(moment.wait)} 0)`}>
            <line y1={16} y2={height} stroke="var(--ink)" strokeDasharray="4 3" />
            <text
              x={scale.x(moment.wait) > width - 60 ? -4 : 4}
              y={24}
              fontSize={11}
              textAnchor={scale.x(moment.wait) > width - 60 ? 'end' : 'start'}
              fill="var(--ink)"
            >
              {moment.wait === moment.shown ? 'shows' : 'answers'}
            </text>
          </g>
        ) : null}
      </svg>
      {own.length > MOST ? <p className="text-soft">and {own.length - MOST} more, in the table</p> : null}
      <AsTable
        words={2}
        heads={['request', 'why it travels', 'found', 'first byte', 'complete', 'size']}
        rows={own.map((r) => [
          r.name,
          ROLES[r.role].name,
          signed(r.discovered - moment.act),
          signed(r.firstByte - moment.act),
          signed(r.end - moment.act),
          size(r.bytes),
        ])}
      />
    </div>
  );
}

/** The axis around an act: from what was asked for ahead of it to the last thing that belongs to it. */
function scaleOf(moment: MomentView, own: VisitView['pages'][number]['requests'], width: number) {
  const begins = Math.min(0, ...own.map((r) => r.discovered - moment.act), -moment.lead);
  const ends = Math.max(
    50,
    ...own.map((r) => r.end - moment.act),
    ...[moment.complete, moment.answering].filter(Number.isFinite),
  );
  const span = ends - begins;
  const scale: Scale = {
    width,
    from: begins - span * 0.02,
    to: ends + span * 0.06,
    x: (ms) => ((ms - begins + span * 0.02) / (span * 1.08)) * width,
    ms: (x) => (x / width) * span * 1.08 + begins - span * 0.02,
  };
  return { scale, begins, ends };
}

/** One request: its name, what it weighs, its wait for the first byte (dashed) and its bytes. */
function MomentRow({
  request: r,
  y,
  x,
}: {
  request: VisitView['pages'][number]['requests'][number];
  y: number;
  x: (at: number) => number;
}) {
  const look = ROLES[r.role];
  return (
    <g>
      <text x={0} y={y + 12} fontSize={12} fill="var(--ink)">
        {clip(r.name, 20)}
      </text>
      <text x={NAME - 10} y={y + 12} fontSize={11} textAnchor="end" fill="var(--soft)">
        {r.gone ? 'gone' : r.cut ? 'cut off' : r.bytes > 0 ? size(r.bytes) : 'kept'}
      </text>
      <g transform={`translate(${NAME} 0)`}>
        <title>{`${r.name}: ${look.name}; ${r.cause.what}; ${time(r.end - r.discovered)}`}</title>
        <line
          x1={x(r.discovered)}
          x2={x(r.firstByte)}
          y1={y + 8}
          y2={y + 8}
          stroke={look.stroke}
          strokeDasharray="2 2"
        />
        <rect
          x={x(r.firstByte)}
          y={y + 3}
          width={Math.max(2, x(r.end) - x(r.firstByte))}
          height={10}
          fill={look.fill}
          stroke={look.stroke}
        />
      </g>
    </g>
  );
}

function clip(text: string, most: number): string {
  return text.length > most ? `${text.slice(0, most - 1)}…` : text;
}

/** A time from the act; before it with a minus. */
function signed(ms: number): string {
  return ms < 0 ? `−${time(-ms)}` : time(ms);
}
