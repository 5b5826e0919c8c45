import type { RecordedRequest } from '../../../core/recordings/types.ts';
import type { RequestRecord } from '../../../core/sim/types.ts';
import { size, time } from '../../parts/format.ts';
import { ROLES } from '../../parts/roles.tsx';
import { ROW, shares } from './rows.ts';

const NAME_END = 152;
const SIZE_END = 206;
const LONGEST_NAME = 17;
const THIN = 4;
const THICK = 19;

/** One request: held (dotted), waiting (line), receiving (a bar as thick as its share of the link). */
export function RequestRow({
  id,
  request,
  y,
  x,
  width,
  downKbps,
  lit,
  recorded,
  ghost,
  chosen,
  onChoose,
}: {
  id: string;
  request: RequestRecord;
  y: number;
  x: (ms: number) => number;
  width: number;
  downKbps: number;
  lit: boolean;
  /** The same request as recorded. */
  recorded: RecordedRequest | null;
  /** The same request in the baseline. */
  ghost: RequestRecord | null;
  chosen: boolean;
  onChoose: () => void;
}) {
  const look = ROLES[request.role];
  const middle = y + ROW / 2;
  const pieces = shares(request, downKbps);
  const begins = pieces[0]?.from ?? request.end;
  const name = request.name.length > LONGEST_NAME ? `${request.name.slice(0, LONGEST_NAME - 1)}…` : request.name;
  const amount = amountOf(request);
  return (
    <g
      id={id}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      aria-label={`${name} ${amount}, ${request.role}, asked for at ${time(request.discovered)} by ${request.cause.what}, there at ${time(request.end)}`}
      onClick={onChoose}
      className="cursor-pointer outline-none"
    >
      <title>{request.name}</title>
      <rect x={3} y={y} width={width} height={ROW} fill="transparent" />
      <text x={NAME_END} y={middle + 4} fontSize={12} textAnchor="end" fontWeight={lit ? 600 : 400} fill="var(--ink)">
        {`${name} `}
      </text>
      <text x={SIZE_END} y={middle + 4} fontSize={12} textAnchor="end" fill="var(--soft)">
        {amount}
      </text>
      {ghost && ghost.end > ghost.firstByte ? (
        <rect
          x={x(ghost.firstByte)}
          y={middle - THICK / 2}
          width={Math.max(2, x(ghost.end) - x(ghost.firstByte))}
          height={THICK}
          fill="var(--ghost)"
          opacity={0.55}
        />
      ) : null}
      <line
        x1={x(request.discovered)}
        x2={x(request.sent)}
        y1={middle}
        y2={middle}
        stroke={look.stroke}
        strokeDasharray="1.5 2.5"
      />
      <line x1={x(request.sent)} x2={x(begins)} y1={middle} y2={middle} stroke={look.stroke} strokeWidth={1.3} />
      {pieces.map((p) => {
        const thick = THIN + (THICK - THIN) * p.share;
        return (
          <rect
            key={p.from}
            x={x(p.from)}
            y={middle - thick / 2}
            width={Math.max(2, x(p.to) - x(p.from))}
            height={thick}
            fill={look.fill}
            stroke={look.stroke}
            strokeWidth={request.role === 'needed' || request.role === 'hinted' ? 0 : 1}
          />
        );
      })}
      <circle cx={x(request.sent)} cy={middle} r={2.6} fill="var(--sheet)" stroke={look.stroke} strokeWidth={1.4} />
      {recorded ? (
        <g>
          <title>{`recorded: sent ${time(recorded.sent)}, there ${time(recorded.end)}`}</title>
          <rect
            x={x(recorded.sent)}
            y={y + ROW - 5}
            width={Math.max(2, x(recorded.end) - x(recorded.sent))}
            height={4}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={1}
          />
        </g>
      ) : null}
      {request.role === 'hinted' ? (
        <path d={`M${x(request.discovered) - 4},${middle - 10} h8 l-4,6 z`} fill={look.fill} />
      ) : null}
      {request.role === 'on demand' ? (
        <path d={`M${x(begins)},${middle - THICK / 2} v-3 h7 v3 z`} fill={look.fill} />
      ) : null}
    </g>
  );
}

/** What travelled, in words: a size, or why there was none. */
function amountOf({ bytes, unknownSize, fromCache, gone }: RequestRecord): string {
  if (gone) return 'gone';
  if (unknownSize) return 'size unknown';
  return fromCache ? 'cached' : bytes > 0 ? size(bytes) : 'unchanged';
}
