'use client';

import { scaleLinear } from 'd3-scale';
import { type KeyboardEvent, type MouseEvent, useId, useMemo } from 'react';
import { sourceRequest } from '../../../core/metrics/behind.ts';
import { layUnder } from '../../../core/recordings/match.ts';
import type { RecordedRequest } from '../../../core/recordings/types.ts';
import type { Conditions } from '../../../core/sim/conditions.ts';
import type { LandingView } from '../../../worker/views.ts';
import { tickWords } from '../../parts/axis.ts';
import { time } from '../../parts/format.ts';
import { openRowMenu } from '../../parts/menu/row-menu.ts';
import { useLanding } from '../../state/landing.ts';
import { useStartupView } from '../../state/startup-view.ts';
import { useTrial } from '../../state/trial.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { MilestoneFlags } from './milestone-flags.tsx';
import { requestMenu } from './request-menu.ts';
import { RequestRow } from './request-row.tsx';
import { ghostsOf, layRows, litBy, ROW, requestsOf } from './rows.ts';
import { LinkTrack, RevealLanes, ThreadTrack } from './tracks.tsx';

export const GUTTER = 216;
const RIGHT = 18;
const TOP = 12;
const LANE = 14;

/** The whole picture of one landing over time. */
export function Waterfall({
  view,
  conditions,
  width: visible,
  chosen,
  marked,
}: {
  view: LandingView;
  conditions: Conditions;
  width: number;
  /** The request that is told about. */
  chosen: number;
  /** Requests that belong to what is chosen here or elsewhere. */
  marked: ReadonlySet<number>;
}) {
  const ids = useId();
  const { timeline, parts } = view;
  const { zoom, hidden, part, at: instant, under } = useStartupView();
  const width = visible * zoom;
  const ghost = useLanding((s) => s.ghost);
  const trial = useTrial();
  const ghosts = useMemo(() => ghostsOf(view, ghost), [view, ghost]);
  const recorded = useMemo(() => (under ? layUnder(timeline, under.recording).of : []), [timeline, under]);
  const until = useMemo(() => lastOfBoth(view, recorded, ghost), [view, recorded, ghost]);
  const laid = useMemo(() => {
    const of = part !== null && parts.some((p) => p.id === part) ? requestsOf(view, part) : null;
    return layRows(timeline.requests, (i) => !hidden.has(timeline.requests[i].role) && (of === null || of.has(i)));
  }, [view, timeline, parts, hidden, part]);
  const lit = useMemo(() => litBy(view.chain), [view]);
  const x = useMemo(() => scaleLinear([0, until], [GUTTER, width - RIGHT]), [until, width]);
  const lanes = parts.flatMap((p, i) =>
    p.place === 'first screen' && timeline.reveals.some((r) => r.part === i) ? [i] : [],
  );
  const lanesTop = TOP + laid.height + 26;
  const threadTop = lanesTop + lanes.length * LANE + 18;
  const linkTop = threadTop + 52;
  const height = linkTop + 66;
  const { pick, onKey, onMenu } = useWalk(view, laid.rows, chosen, ids);
  return (
    <div className="relative">
      <MilestoneFlags
        view={view}
        before={ghosts ? { word: trial ? 'before' : 'baseline', at: ghosts.interactive } : null}
        x={x}
        width={width}
        gutter={GUTTER}
        bodyHeight={height - 22}
      />
      <div
        role="listbox"
        tabIndex={0}
        aria-label="Requests of this landing, in hops"
        aria-activedescendant={chosen >= 0 ? `${ids}${chosen}` : undefined}
        onKeyDown={onKey}
        onContextMenu={onMenu}
        className="outline-offset-[-2px]"
      >
        <svg width={width} height={height} className="block" data-picture="startup">
          <title>Predicted waterfall</title>
          <HopBands hops={laid.hops} width={width} />
          <Grid x={x} top={TOP} bottom={linkTop + 40} height={height} />
          {laid.rows
            .filter((r) => marked.has(r.request))
            .map((r) => (
              <rect key={r.request} x={3} y={TOP + r.y} width={width} height={ROW} fill="var(--mark)" />
            ))}
          <YokeLines view={view} rows={laid.rows} x={x} chosen={chosen} lit={lit.requests} />
          {laid.rows.map(({ request, y }) => (
            <RequestRow
              key={request}
              id={`${ids}${request}`}
              request={timeline.requests[request]}
              y={TOP + y}
              x={x}
              width={width}
              downKbps={conditions.link.downKbps}
              lit={lit.requests.has(request)}
              recorded={recorded[request] ?? null}
              ghost={ghosts?.of[request] ?? null}
              chosen={request === chosen}
              onChoose={() => pick(request)}
            />
          ))}
          <HopNames hops={laid.hops} />
          <RevealLanes view={view} lanes={lanes} top={lanesTop} lane={LANE} x={x} until={until} />
          <ThreadTrack view={view} top={threadTop} x={x} until={until} lit={lit.tasks} />
          {ghosts ? <BeforeLines ghosts={ghosts} x={x} until={until} bottom={linkTop} /> : null}
          {instant === null ? null : <InstantLine at={x(Math.min(until, instant))} bottom={linkTop} />}
          <LinkTrack view={view} top={linkTop} x={x} until={until} downKbps={conditions.link.downKbps} />
        </svg>
      </div>
    </div>
  );
}

/** Choosing requests by pointer and keys: up and down the rows, left to what caused one. */
function useWalk(view: LandingView, rows: { request: number }[], chosen: number, ids: string) {
  const choose = useWorkbench((s) => s.choose);
  const { timeline } = view;
  const at = rows.findIndex((r) => r.request === chosen);
  const pick = (request: number) =>
    choose({
      selection: {
        kind: 'request',
        address: timeline.requests[request].address,
        chunk: view.brings[request]?.chunk ?? null,
      },
    });
  const select = (row: number) => {
    const next = rows[Math.max(0, Math.min(rows.length - 1, row))];
    pick(next.request);
    document.getElementById(`${ids}${next.request}`)?.scrollIntoView({ block: 'nearest' });
  };
  const sourceOf = (request: number) => {
    const source = sourceRequest(timeline, timeline.requests[request].cause);
    return rows.findIndex((r) => r.request === source);
  };
  const onMenu = (event: MouseEvent<HTMLElement>) => {
    const row = (event.target as Element).closest('[role=option]') ?? document.getElementById(`${ids}${chosen}`);
    const request = rows.find((r) => `${ids}${r.request}` === row?.id)?.request;
    if (request === undefined) return;
    pick(request);
    const by = sourceOf(request);
    openRowMenu(event, row, requestMenu(view, request, by < 0 ? null : () => select(by)));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') select(at + 1);
    else if (event.key === 'ArrowUp') select(at < 0 ? 0 : at - 1);
    else if (event.key === 'Home') select(0);
    else if (event.key === 'End') select(rows.length - 1);
    else if (event.key === 'Escape') choose({ selection: null });
    else if (event.key === 'ArrowLeft' && chosen >= 0) {
      const by = sourceOf(chosen);
      if (by >= 0) select(by);
    } else return;
    event.preventDefault();
  };
  return { pick, onKey, onMenu };
}

type Hops = ReturnType<typeof layRows>['hops'];

function HopBands({ hops, width }: { hops: Hops; width: number }) {
  return hops.map((hop) => (
    <g key={hop.hop}>
      <rect
        x={0}
        y={TOP + hop.from}
        width={width}
        height={hop.to - hop.from}
        fill={hop.hop % 2 ? 'var(--paper)' : 'var(--band)'}
        opacity={0.75}
      />
      <rect x={0} y={TOP + hop.from} width={3} height={hop.to - hop.from} fill="var(--line)" />
    </g>
  ));
}

function HopNames({ hops }: { hops: Hops }) {
  return hops.map((hop) => (
    <text
      key={hop.hop}
      x={10}
      y={TOP + hop.from + 15}
      fontSize={11}
      fontWeight={600}
      fill="var(--soft)"
      pointerEvents="none"
    >
      hop {hop.hop}
    </text>
  ));
}

/** Where the milestones of what it is compared with were. */
function BeforeLines({
  ghosts,
  x,
  until,
  bottom,
}: {
  ghosts: { firstContent: number; interactive: number };
  x: Scale;
  until: number;
  bottom: number;
}) {
  return (
    <g stroke="var(--ghost)" strokeDasharray="6 3" strokeWidth={1.5}>
      <title>{`before: first content ${time(ghosts.firstContent)}, interactive ${time(ghosts.interactive)}`}</title>
      {[ghosts.firstContent, ghosts.interactive]
        .filter((ms) => ms <= until)
        .map((ms) => (
          <line key={ms} x1={x(ms)} x2={x(ms)} y1={TOP} y2={bottom} />
        ))}
    </g>
  );
}

function InstantLine({ at, bottom }: { at: number; bottom: number }) {
  return <line x1={at} x2={at} y1={TOP} y2={bottom} stroke="var(--on-demand)" strokeDasharray="2 3" />;
}

function lastInstant({ timeline, milestones }: LandingView, recorded: (RecordedRequest | null)[]): number {
  const ends = [...timeline.requests, ...timeline.tasks, ...recorded].map((r) => r?.end ?? 0);
  return Math.max(100, milestones.interactive || 0, milestones.firstScreenComplete || 0, ...ends) * 1.02;
}

/** One scale for a landing and what it is compared with, so that what is shorter looks shorter. */
function lastOfBoth(view: LandingView, recorded: (RecordedRequest | null)[], ghost: LandingView | null): number {
  return Math.max(lastInstant(view, recorded), ghost ? lastInstant(ghost, []) : 0);
}

type Scale = ReturnType<typeof scaleLinear<number, number>>;

function Grid({ x, top, bottom, height }: { x: Scale; top: number; bottom: number; height: number }) {
  return (
    <g>
      {x.ticks(8).map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={top} y2={bottom} stroke="var(--line)" opacity={0.6} />
          <text x={x(t)} y={height - 8} fontSize={11} textAnchor="middle" fill="var(--soft)">
            {tickWords(t)}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Thin lines from what caused a request to the request. */
function YokeLines({
  view,
  rows,
  x,
  chosen,
  lit,
}: {
  view: LandingView;
  rows: { request: number; y: number }[];
  x: Scale;
  chosen: number;
  lit: Set<number>;
}) {
  const yOf = new Map(rows.map((r) => [r.request, TOP + r.y + ROW / 2]));
  return (
    <g fill="none">
      {rows.map(({ request }) => {
        const { cause, discovered } = view.timeline.requests[request];
        const source = sourceRequest(view.timeline, cause);
        if (source < 0 || !yOf.has(source)) return null;
        const [x0, x1] = [x(cause.at), x(discovered)];
        const [y0, y1] = [yOf.get(source)! + 10, yOf.get(request)!];
        const bend = Math.min(10, Math.abs(y1 - y0) / 2);
        const strong = request === chosen || source === chosen;
        return (
          <path
            key={request}
            d={`M${x0},${y0} V${y1 - bend} Q${x0},${y1} ${Math.max(x0 + 5, x1)},${y1}`}
            stroke={strong || lit.has(request) ? 'var(--ink)' : 'var(--faint)'}
            strokeWidth={strong ? 1.8 : lit.has(request) ? 1.2 : 0.9}
            opacity={strong ? 1 : lit.has(request) ? 0.8 : 0.55}
          />
        );
      })}
    </g>
  );
}
