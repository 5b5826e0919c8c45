'use client';

import { useRef, useState } from 'react';
import type { Plan } from '../../../core/plan/types.ts';
import { counted } from '../../../core/text/counted.ts';
import type { LandingView } from '../../../worker/views.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { tickWords } from '../../parts/axis.ts';
import { size, time } from '../../parts/format.ts';
import { ROLES } from '../../parts/roles.tsx';
import { useWidth } from '../../parts/use-width.ts';
import { conditionsWords, useComparedPlans } from '../../state/compare.ts';
import { longWork } from '../../state/long-work.ts';
import { useWork } from '../../state/work.ts';
import { useConditions, useWorkbench } from '../../state/workbench.ts';
import { TakePicture } from './take-along.tsx';

const ROW = 14;
const BAR = 7;
const HEAD = 30;
const GAP = 14;
/** Room for the names of requests. */
const LEFT = 140;
const LONGEST_NAME = 21;
const RIGHT = 90;
const STEPS = [100, 250, 500, 1000, 2000, 5000, 10_000, 30_000];

/** The landing under each plan, one waterfall under the other, on one time axis. */
export function WaterfallsPage() {
  const plans = useComparedPlans();
  const conditions = useConditions();
  const route = useWorkbench((s) => s.route);
  const app = useWorkbench((s) => s.app);
  const [views, setViews] = useState<{ plan: Plan; view: LandingView }[] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  // Another snapshot in the worker (app) gives other landings.
  useWork(
    async (wanted) => {
      setError(null);
      const worker = await longWork();
      const found: { plan: Plan; view: LandingView }[] = [];
      for (const plan of plans) found.push({ plan, view: (await worker.startup.landing(plan, route, conditions)).now });
      if (wanted()) setViews(found);
    },
    (reason) => setError(reason.message),
    [plans, conditions, route, app],
  );
  if (error) return <p className="p-4 text-worse">{error}</p>;
  if (!views) return <p className="p-4 text-soft">Predicting the landings.</p>;
  return (
    <div className="h-full overflow-auto px-4 py-4">
      <div className="mb-2 flex items-start justify-between gap-4">
        <div>
          <h2 className="text-[15px] font-semibold">Landing on {route}</h2>
          <p className="text-soft">{conditionsWords(conditions)}. Every plan on the same time axis.</p>
        </div>
        <TakePicture drawing={() => box.current?.querySelector('svg') ?? null} file="compare-waterfalls" />
      </div>
      <div ref={box}>
        <Drawing views={views} box={box} />
      </div>
      <AsTable
        className="mt-3"
        words={3}
        heads={['plan', 'request', 'why it travels', 'asked for', 'first byte', 'complete', 'size']}
        rows={views.flatMap(({ plan, view }) =>
          view.timeline.requests.map((r, at) => [
            at === 0 ? plan.name : '',
            r.name,
            ROLES[r.role].name,
            time(r.discovered),
            time(r.firstByte),
            time(r.end),
            size(r.bytes),
          ]),
        )}
      />
    </div>
  );
}

function Drawing({
  views,
  box,
}: {
  views: { plan: Plan; view: LandingView }[];
  box: React.RefObject<HTMLDivElement | null>;
}) {
  const width = useWidth(box, 900);
  const last = Math.max(
    1,
    ...views.flatMap(({ view }) => [view.milestones.interactive || 0, ...view.timeline.requests.map((r) => r.end)]),
  );
  const x = (ms: number) => LEFT + (Math.max(0, ms) / last) * (width - LEFT - RIGHT);
  const step = STEPS.find((s) => last / s <= 10) ?? 60_000;
  const ticks = Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step);
  const tops: number[] = [];
  let height = 18;
  for (const { view } of views) {
    tops.push(height);
    height += HEAD + view.timeline.requests.length * ROW + GAP;
  }
  const words = views.map(({ plan, view }) => `${plan.name}: interactive after ${time(view.milestones.interactive)}`);
  return (
    <svg width={width} height={height} role="img" aria-label={words.join('; ')}>
      {ticks.map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={14} y2={height} stroke="var(--line)" />
          <text x={x(t) + 2} y={10} fontSize="11" fill="var(--soft)">
            {tickWords(t)}
          </text>
        </g>
      ))}
      {views.map(({ plan, view }, v) => {
        const { milestones, readout } = view;
        const top = tops[v] + HEAD;
        const bottom = top + view.timeline.requests.length * ROW;
        return (
          <g key={plan.name}>
            <text x={8} y={tops[v] + 18} fontSize="13" fontWeight="600" fill="var(--ink)">
              {plan.name}
              <tspan fontWeight="400" fontSize="12" fill="var(--soft)">
                {`   ${size(readout.startBytes)}, ${counted(readout.requests, 'request')}, ${counted(readout.hops, 'hop')}`}
              </tspan>
            </text>
            {view.timeline.requests.map((r, i) => {
              const y = top + i * ROW;
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: an address may be asked for twice
                <g key={i}>
                  <title>{`${r.name}, ${time(r.sent)} – ${time(r.end)}, ${size(r.bytes)}`}</title>
                  <text x={LEFT - 8} y={y + BAR + 1} fontSize={11} textAnchor="end" fill="var(--soft)">
                    {r.name.length > LONGEST_NAME ? `${r.name.slice(0, LONGEST_NAME - 1)}…` : r.name}
                  </text>
                  <line
                    x1={x(r.discovered)}
                    x2={x(r.firstByte)}
                    y1={y + BAR / 2}
                    y2={y + BAR / 2}
                    stroke={ROLES[r.role].stroke}
                  />
                  <rect
                    x={x(r.firstByte)}
                    y={y}
                    width={Math.max(1.5, x(r.end) - x(r.firstByte))}
                    height={BAR}
                    fill={ROLES[r.role].fill}
                    stroke={ROLES[r.role].stroke}
                    strokeWidth={r.role === 'content' || r.role === 'in case' || r.role === 'wasted' ? 0.7 : 0}
                  />
                </g>
              );
            })}
            <Milestone at={x(milestones.firstContent)} from={top - 4} to={bottom} words={null} />
            <Milestone
              at={x(milestones.interactive)}
              from={top - 4}
              to={bottom}
              words={Number.isFinite(milestones.interactive) ? `interactive ${time(milestones.interactive)}` : null}
            />
          </g>
        );
      })}
    </svg>
  );
}

/** First content is a thin broken line, interactive a solid one with its time. */
function Milestone({ at, from, to, words }: { at: number; from: number; to: number; words: string | null }) {
  if (!Number.isFinite(at)) return null;
  return (
    <>
      <line
        x1={at}
        x2={at}
        y1={from}
        y2={to}
        stroke="var(--ink)"
        strokeWidth={words ? 1.5 : 1}
        strokeDasharray={words ? undefined : '2 3'}
      />
      {words ? (
        <text
          x={at + 4}
          y={from + 8}
          fontSize="11"
          fill="var(--ink)"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {words}
        </text>
      ) : null}
    </>
  );
}
