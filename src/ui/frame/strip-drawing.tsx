import { scaleLinear } from 'd3-scale';
import { useRef } from 'react';
import type { RequestRecord } from '../../core/sim/types.ts';
import type { LandingView } from '../../worker/views.ts';
import { tickWords } from '../parts/axis.ts';
import { time } from '../parts/format.ts';
import { ROLES } from '../parts/roles.tsx';
import { useWidth } from '../parts/use-width.ts';
import { stripRows } from './strip-rows.ts';

const TOP = 20;
const HEIGHT = 116;
/** Where the axis begins. */
const AXIS = HEIGHT - 15;
const LABEL = 92;

/** Requests as in Startup, in small: waiting as a line, receiving as a bar; behind them those that it is compared with, on one scale. */
export function StripDrawing({ now, ghost, behind }: { now: LandingView; ghost: LandingView; behind: string }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 420);
  const { rows, of } = stripRows(now.timeline.requests, ghost.timeline.requests);
  const last = Math.max(
    ghost.milestones.interactive || 0,
    now.milestones.interactive || 0,
    ...rows.flatMap((r) => [r.now?.end ?? 0, r.ghost?.end ?? 0]),
  );
  const x = scaleLinear([0, last || 1], [10, width - 24]);
  const pitch = Math.min(11, (AXIS - TOP - 2) / Math.max(1, rows.length));
  const bar = Math.max(2, pitch * 0.5);
  return (
    <div ref={box} className="min-w-[200px] flex-1 overflow-hidden">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Interactive after ${time(now.milestones.interactive)}, ${behind} ${time(ghost.milestones.interactive)}; ${rows.length} of ${of} requests`}
      >
        <line x1={x(0)} x2={width - 8} y1={AXIS} y2={AXIS} stroke="var(--line)" />
        {x.ticks(Math.max(2, Math.floor(width / 90))).map((t) => (
          <g key={t} transform={`translate(${x(t)} ${AXIS})`}>
            <line y2={3} stroke="var(--faint)" />
            <text y={13} fontSize={11} textAnchor={t === 0 ? 'start' : 'middle'} fill="var(--soft)">
              {tickWords(t)}
            </text>
          </g>
        ))}
        {rows.map((row, i) => (
          <g key={row.address} transform={`translate(0 ${TOP + i * pitch})`}>
            <title>{row.now?.name ?? row.ghost?.name}</title>
            {row.ghost ? <Request of={row.ghost} x={x} y={-1} height={bar + 2} isGhost /> : null}
            {row.now ? <Request of={row.now} x={x} y={0} height={bar} /> : null}
          </g>
        ))}
        <Milestones now={now} ghost={ghost} behind={behind} x={x} width={width} />
        {rows.length < of && width > 320 ? (
          <text x={x(0)} y={12} fontSize={11} fill="var(--soft)">
            {rows.length} of {of} requests
          </text>
        ) : null}
      </svg>
    </div>
  );
}

function Request({
  of,
  x,
  y,
  height,
  isGhost = false,
}: {
  of: RequestRecord;
  x: (ms: number) => number;
  y: number;
  height: number;
  isGhost?: boolean;
}) {
  const look = isGhost ? { fill: 'var(--ghost)', stroke: 'var(--ghost)' } : ROLES[of.role];
  const middle = y + height / 2;
  return (
    <>
      <line x1={x(of.sent)} x2={x(of.firstByte)} y1={middle} y2={middle} stroke={look.stroke} />
      <rect
        x={x(of.firstByte)}
        y={y}
        width={Math.max(1.5, x(of.end) - x(of.firstByte))}
        height={height}
        fill={look.fill}
        stroke={of.role === 'needed' || isGhost ? 'none' : look.stroke}
        strokeWidth={0.5}
      />
    </>
  );
}

/** First content and interactive, with what it is compared with; words go to the side that has room. */
function Milestones({
  now,
  ghost,
  behind,
  x,
  width,
}: {
  now: LandingView;
  ghost: LandingView;
  behind: string;
  x: (ms: number) => number;
  width: number;
}) {
  const { firstContent, interactive } = now.milestones;
  const [here, there, content] = [interactive, ghost.milestones.interactive, firstContent].map(x);
  const differs = Number.isFinite(there) && Math.abs(there - here) > 2;
  // The words of the two keep out of each other's way: the earlier one's stand before it.
  const left = (differs && here < there) || here + LABEL > width;
  const leftThere = !left || there + LABEL > width;
  const beside = left === leftThere && Math.abs(there - here) < LABEL;
  return (
    <>
      {Number.isFinite(content) ? (
        <line
          x1={content}
          x2={content}
          y1={TOP - 4}
          y2={AXIS}
          stroke="var(--ink)"
          strokeWidth={0.8}
          strokeDasharray="1 2"
        >
          <title>{`first content ${time(firstContent)}`}</title>
        </line>
      ) : null}
      {differs ? (
        <>
          <line x1={there} x2={there} y1={6} y2={AXIS} stroke="var(--faint)" strokeDasharray="2 3" />
          <text
            x={there + (leftThere ? -4 : 4)}
            y={beside ? 24 : 12}
            textAnchor={leftThere ? 'end' : 'start'}
            fontSize={11}
            fill="var(--soft)"
          >
            {behind}
          </text>
        </>
      ) : null}
      {Number.isFinite(here) ? (
        <>
          <line x1={here} x2={here} y1={6} y2={AXIS} stroke="var(--ink)" strokeWidth={1.5} />
          <text x={here + (left ? -4 : 4)} y={12} textAnchor={left ? 'end' : 'start'} fontSize={11} fill="var(--ink)">
            interactive
          </text>
        </>
      ) : null}
    </>
  );
}
