import type { RecordedRequest } from '../../../../core/recordings/types.ts';
import type { RequestRecord } from '../../../../core/sim/types.ts';
import { time } from '../../../parts/format.ts';
import { ROLES } from '../../../parts/roles.tsx';

export const GUTTER = 176;
export const ROW = 22;
const LONGEST_NAME = 25;
/** Differences of ends that are written out: in ms, and as a share. */
const LEAST_MS = 10;
const LEAST_SHARE = 0.03;

type Scale = (ms: number) => number;

/** One request: from being asked for to its first byte a line, from there to its end a bar; predicted above, rehearsed below. */
export function PairedRow({
  name,
  predicted,
  rehearsed,
  y,
  x,
}: {
  name: string;
  predicted: RequestRecord | null;
  rehearsed: RecordedRequest | null;
  y: number;
  x: Scale;
}) {
  const look = ROLES[predicted?.role ?? 'content'];
  const short = name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME - 1)}…` : name;
  const end = Math.max(predicted?.end ?? 0, rehearsed?.end ?? 0);
  return (
    <g>
      <title>{`${name}: ${words(predicted, rehearsed)}`}</title>
      <text x={GUTTER - 8} y={y + 14} fontSize={12} textAnchor="end" fill="var(--ink)">
        {short}
      </text>
      {predicted && Number.isFinite(predicted.end) ? (
        <g>
          <line
            x1={x(predicted.discovered)}
            x2={x(predicted.firstByte)}
            y1={y + 6.5}
            y2={y + 6.5}
            stroke={look.stroke}
          />
          <rect
            x={x(predicted.firstByte)}
            y={y + 3}
            width={wide(x, predicted.firstByte, predicted.end)}
            height={7}
            fill={look.fill}
            stroke={look.stroke}
            strokeWidth={0.8}
          />
        </g>
      ) : null}
      {rehearsed ? (
        <g>
          <line
            x1={x(rehearsed.discovered)}
            x2={x(rehearsed.firstByte)}
            y1={y + 14.5}
            y2={y + 14.5}
            stroke="var(--ink)"
          />
          <rect
            x={x(rehearsed.firstByte)}
            y={y + 11.5}
            width={wide(x, rehearsed.firstByte, rehearsed.end)}
            height={6}
            fill="var(--sheet)"
            stroke="var(--ink)"
          />
        </g>
      ) : null}
      <text x={x(end) + 5} y={y + 14} fontSize={11} fill="var(--soft)">
        {difference(predicted, rehearsed)}
      </text>
    </g>
  );
}

function wide(x: Scale, from: number, to: number): number {
  return Math.max(2, x(to) - x(from));
}

/** How much later (+) or sooner it really was there, where that counts. */
function difference(predicted: RequestRecord | null, rehearsed: RecordedRequest | null): string {
  if (!predicted) return 'not predicted';
  if (!rehearsed) return 'never asked for';
  const late = rehearsed.end - predicted.end;
  if (!(Math.abs(late) >= LEAST_MS && Math.abs(late) >= rehearsed.end * LEAST_SHARE)) return '';
  return `${late > 0 ? '+' : '−'}${time(Math.abs(late))}`;
}

function words(predicted: RequestRecord | null, rehearsed: RecordedRequest | null): string {
  const said = (r: { discovered: number; end: number }) =>
    `asked for at ${time(r.discovered)}, there at ${time(r.end)}`;
  return [
    predicted ? `predicted: ${said(predicted)}` : 'not predicted',
    rehearsed ? `rehearsed: ${said(rehearsed)}` : 'never asked for',
  ].join('; ');
}
