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
        <Span of={predicted} x={x} y={y + 3} height={7} fill={look.fill} stroke={look.stroke} />
      ) : null}
      {rehearsed ? <Span of={rehearsed} x={x} y={y + 11.5} height={6} fill="var(--sheet)" stroke="var(--ink)" /> : null}
      <text x={x(end) + 5} y={y + 14} fontSize={11} fill="var(--soft)">
        {difference(predicted, rehearsed)}
      </text>
    </g>
  );
}

/** From being asked for to the first byte a line, from there to the end a bar. */
function Span({
  of: { discovered, firstByte, end },
  x,
  y,
  height,
  fill,
  stroke,
}: {
  of: Pick<RecordedRequest, 'discovered' | 'firstByte' | 'end'>;
  x: Scale;
  y: number;
  height: number;
  fill: string;
  stroke: string;
}) {
  const middle = y + height / 2;
  return (
    <g stroke={stroke}>
      <line x1={x(discovered)} x2={x(firstByte)} y1={middle} y2={middle} />
      <rect x={x(firstByte)} y={y} width={Math.max(2, x(end) - x(firstByte))} height={height} fill={fill} />
    </g>
  );
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
