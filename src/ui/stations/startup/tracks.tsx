import { LONG_TASK } from '../../../core/metrics/readout.ts';
import type { LandingView } from '../../../worker/views.ts';
import { time } from '../../parts/format.ts';
import { thinFill } from '../../parts/roles.tsx';
import { linkUse } from './link-use.ts';

type Scale = (ms: number) => number;

const LABEL_END = 206;

function Label({ y, children, strong }: { y: number; children: string; strong?: boolean }) {
  return (
    <text
      x={strong ? 10 : LABEL_END}
      y={y}
      fontSize={11}
      fontWeight={strong ? 600 : 400}
      textAnchor={strong ? 'start' : 'end'}
      fill="var(--soft)"
    >
      {children}
    </text>
  );
}

/** One thin lane per part: nothing, placeholder, shown, answering. */
export function RevealLanes({
  view,
  lanes,
  top,
  lane,
  x,
  until,
}: {
  view: LandingView;
  lanes: number[];
  top: number;
  lane: number;
  x: Scale;
  until: number;
}) {
  return (
    <g>
      {lanes.length > 0 ? (
        <Label y={top + 9} strong>
          {'what shows'}
        </Label>
      ) : null}
      {lanes.map((part, i) => {
        const y = top + i * lane;
        const states = view.timeline.reveals
          .filter((r) => r.part === part && r.state !== 'filled')
          .sort((a, b) => a.at - b.at);
        const words = states.map((s) => `${s.state === 'stand-in' ? 'placeholder' : s.state} ${time(s.at)}`).join(', ');
        const { name } = view.parts[part];
        return (
          <g key={part}>
            <title>{`${name}: ${words}`}</title>
            <Label y={y + 9}>{name.length > 24 ? `${name.slice(0, 23)}…` : name}</Label>
            <rect x={x(0)} y={y} width={x(until) - x(0)} height={10} fill="none" stroke="var(--line)" opacity={0.7} />
            {states.map((s, n) => {
              const next = states[n + 1]?.at ?? until;
              const fill =
                s.state === 'answering'
                  ? 'var(--needed)'
                  : s.state === 'stand-in'
                    ? 'url(#stand-in)'
                    : 'var(--needed-pale)';
              return (
                <rect
                  key={`${s.state}${s.at}`}
                  x={x(s.at)}
                  y={y}
                  width={Math.max(0, x(next) - x(s.at))}
                  height={10}
                  fill={fill}
                />
              );
            })}
          </g>
        );
      })}
    </g>
  );
}

const SHORT = 14;
const TALL = 26;

/** The thread's tasks; what exceeds 50 ms steps up in height. */
export function ThreadTrack({
  view,
  top,
  x,
  until,
  lit,
}: {
  view: LandingView;
  top: number;
  x: Scale;
  until: number;
  lit: Set<number>;
}) {
  const base = top + 34;
  return (
    <g>
      <Label y={base - 6}>thread</Label>
      <line x1={x(0)} x2={x(until)} y1={base} y2={base} stroke="var(--line)" />
      {view.timeline.tasks.map((task, i) => {
        if (task.end - task.start < 0.05) return null;
        const long = task.end - task.start > LONG_TASK;
        const step = Math.min(task.end, task.start + LONG_TASK);
        const fill = lit.has(i) ? 'var(--ink)' : 'var(--faint)';
        return (
          <g key={`${task.start}${task.name}`}>
            <title>{`${task.name}: ${task.kind}, ${time(task.end - task.start)} from ${time(task.start)}`}</title>
            <rect
              x={x(task.start)}
              y={base - SHORT}
              width={Math.max(1, x(step) - x(task.start))}
              height={SHORT}
              fill={fill}
              opacity={long ? 0.55 : 0.9}
            />
            {long ? (
              <rect x={x(step)} y={base - TALL} width={Math.max(1, x(task.end) - x(step))} height={TALL} fill={fill} />
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

const USE = 28;

/** How full the downlink is over time, by role. */
export function LinkTrack({
  view,
  top,
  x,
  until,
  downKbps,
}: {
  view: LandingView;
  top: number;
  x: Scale;
  until: number;
  downKbps: number;
}) {
  const bins = Math.max(20, Math.round((x(until) - x(0)) / 3));
  const base = top + 34;
  return (
    <g>
      <Label y={base - 8}>link use</Label>
      <line x1={x(0)} x2={x(until)} y1={base - USE} y2={base - USE} stroke="var(--line)" strokeDasharray="2 3" />
      <line x1={x(0)} x2={x(until)} y1={base} y2={base} stroke="var(--line)" />
      {linkUse(view.timeline.requests, downKbps, until, bins).map((bin) => {
        let y = base;
        return bin.shares.map(({ role, share }) => {
          const h = Math.min(share * USE, y - (base - USE));
          y -= h;
          return (
            <rect
              key={`${bin.from}${role}`}
              x={x(bin.from)}
              y={y}
              width={x(bin.to) - x(bin.from) + 0.4}
              height={h}
              fill={thinFill(role)}
              opacity={0.75}
            />
          );
        });
      })}
    </g>
  );
}
