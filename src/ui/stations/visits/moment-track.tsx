'use client';

import { type PointerEvent, useRef } from 'react';
import type { RequestRecord } from '../../../core/sim/types.ts';
import type { MomentView } from '../../../worker/services/visits.ts';
import { time } from '../../parts/format.ts';
import { thinFill } from '../../parts/roles.tsx';
import type { Scale } from './scale.ts';

export const TRACK_HEIGHT = 40;
const MOST_BARS = 5;

/** One moment on the common axis: the lead before the act, what travels for it, what stands there meanwhile, and the wait. */
export function MomentTrack({
  moment,
  requests,
  scale,
  onLead,
}: {
  moment: MomentView;
  requests: RequestRecord[];
  scale: Scale;
  /** Takes another lead; null where the approach gives none. */
  onLead: ((ms: number) => void) | null;
}) {
  const { x } = scale;
  const middle = TRACK_HEIGHT / 2;
  const end = Number.isFinite(moment.wait) ? moment.wait : scale.to;
  const cut = end > scale.to;
  const own = moment.requests.map((i) => requests[i]).filter((r) => r.end - moment.act <= scale.to * 3);
  const bars = own.filter((r) => r.bytes > 0 || r.type === 'fetch').slice(0, MOST_BARS);
  return (
    <svg width={scale.width} height={TRACK_HEIGHT} className="block overflow-hidden" aria-hidden="true">
      <title>{moment.name}</title>
      {moment.lead > 0 ? (
        <line x1={x(-moment.lead)} x2={x(0)} y1={middle} y2={middle} stroke="var(--soft)" strokeDasharray="2 3" />
      ) : null}
      {moment.standIn ? (
        <rect
          x={x(moment.standIn.from)}
          y={6}
          width={Math.max(1, x(Math.min(moment.standIn.to, scale.to)) - x(moment.standIn.from))}
          height={TRACK_HEIGHT - 12}
          fill="url(#stand-in)"
        />
      ) : null}
      {moment.kind !== 'other' ? (
        <rect
          x={x(0)}
          y={middle - 1}
          width={Math.max(0, x(Math.min(end, scale.to)) - x(0))}
          height={2}
          fill={moment.failed ? 'var(--worse)' : 'var(--ink)'}
        />
      ) : null}
      {bars.map((r, i) => {
        const from = x(Math.max(scale.from, r.discovered - moment.act));
        const to = x(Math.min(scale.to, r.end - moment.act));
        const y = 5 + i * 3.5 + (i > 2 ? 13 : 0);
        return (
          <rect
            key={`${r.address} ${r.discovered}`}
            x={from}
            y={y}
            width={Math.max(1.5, to - from)}
            height={2.6}
            fill={thinFill(r.role)}
          />
        );
      })}
      {moment.kind !== 'other' &&
      Number.isFinite(moment.was) &&
      Math.abs(moment.was - moment.wait) > 1 &&
      moment.was <= scale.to ? (
        <rect x={x(moment.was) - 2} y={middle - 5} width={4} height={10} fill="var(--sheet)" stroke="var(--faint)" />
      ) : null}
      {cut ? (
        <path
          d={`M${scale.width - 12} ${middle - 6} l4 4 l-4 4 l4 4`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.500"
        />
      ) : moment.kind !== 'other' && Number.isFinite(moment.wait) ? (
        <rect x={x(end) - 1.5} y={middle - 8} width={3} height={16} fill="var(--ink)" />
      ) : null}
      {!cut &&
      Number.isFinite(moment.answering) &&
      moment.answering > moment.wait + 1 &&
      moment.answering <= scale.to ? (
        <path d={`M${x(moment.answering)} ${middle - 5} v10`} stroke="var(--ink)" strokeWidth="1.500" />
      ) : null}
      {moment.lead > 0 || onLead ? <LeadHandle lead={moment.lead} scale={scale} onLead={onLead} /> : null}
    </svg>
  );
}

/** Where the approach begins; dragged, it gives more or less lead. The slider of the details does the same by keyboard. */
function LeadHandle({ lead, scale, onLead }: { lead: number; scale: Scale; onLead: ((ms: number) => void) | null }) {
  const held = useRef<{ from: number; lead: number } | null>(null);
  const move = (event: PointerEvent<SVGCircleElement>) => {
    if (!held.current || !onLead) return;
    const perMs = scale.width / (scale.to - scale.from);
    const next = held.current.lead - (event.clientX - held.current.from) / perMs;
    onLead(Math.max(0, Math.round(next / 10) * 10));
  };
  return (
    <circle
      cx={Math.max(6, scale.x(-lead))}
      cy={TRACK_HEIGHT / 2}
      r={5}
      fill="var(--sheet)"
      stroke={onLead ? 'var(--ink)' : 'var(--faint)'}
      strokeWidth="1.500"
      className={onLead ? 'cursor-ew-resize' : undefined}
      style={{ touchAction: 'none' }}
      onPointerDown={(event) => {
        if (!onLead) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { from: event.clientX, lead };
      }}
      onPointerMove={move}
      onPointerUp={() => {
        held.current = null;
      }}
    >
      <title>
        {onLead
          ? `hover or focus ${time(lead)} before the act; drag it`
          : `hover or focus ${time(lead)} before the act`}
      </title>
    </circle>
  );
}
