'use client';

import { useEffect, useRef } from 'react';
import type { Visit, VisitStep } from '../../../core/visits/types.ts';
import type { MomentView, VisitView } from '../../../worker/services/visits.ts';
import { Change } from '../../parts/change.tsx';
import { size, time } from '../../parts/format.ts';
import { useWidth } from '../../parts/use-width.ts';
import { MomentTrack } from './moment-track.tsx';
import { marksOf, type Scale, scaleOf } from './scale.ts';
import { momentWords } from './words.ts';

const GRID = 'grid grid-cols-[212px_minmax(0,1fr)_92px] items-center';

/** The visit as a line of moments, each on the same axis around its act. */
export function MomentList({
  visit,
  view,
  chosen,
  touch,
  fixed,
  onChoose,
  onLead,
}: {
  visit: Visit;
  view: VisitView;
  chosen: number;
  touch: boolean;
  /** Leads can't be dragged. */
  fixed: boolean;
  onChoose: (step: number) => void;
  onLead: (step: number, ms: number) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 480);
  const scale = scaleOf(view.moments, width, touch);
  return (
    <div>
      <div className={`${GRID} sticky top-0 z-10 border-b border-line bg-sheet px-4 text-[11px] text-soft`}>
        <span>moment</span>
        <div ref={box}>
          <Axis scale={scale} />
        </div>
        <span className="text-right">wait</span>
      </div>
      <ol
        aria-label="Moments of the visit"
        className="relative"
        onKeyDown={(event) => {
          const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
          if (by === 0) return;
          event.preventDefault();
          const next = Math.max(-1, Math.min(visit.steps.length - 1, chosen + by));
          onChoose(next);
          event.currentTarget.querySelectorAll<HTMLButtonElement>('button[data-moment]')[next + 1]?.focus();
        }}
      >
        <li aria-hidden="true" className="absolute top-5 bottom-5 left-[22px] w-px bg-line" />
        {view.moments.map((moment, at) => {
          const step = visit.steps[moment.step];
          const opens = moment.kind === 'document' && moment.page > 0;
          const can =
            step !== undefined &&
            'leadMs' in step &&
            step.does !== 'scroll' &&
            !touch &&
            !fixed &&
            moment.kind !== 'document';
          return (
            <li
              key={`${moment.page} ${moment.step} ${moment.kind}`}
              className={opens ? 'border-t border-dashed border-faint' : ''}
            >
              <Row
                moment={moment}
                words={momentWords(moment, step)}
                after={at === 0 || !step ? '' : pauseWords(step, moment)}
                where={at === 0 ? visit.landing : ''}
                requests={view.pages[moment.page].requests}
                scale={scale}
                chosen={moment.step === chosen}
                onChoose={() => onChoose(moment.step)}
                onLead={can ? (ms) => onLead(moment.step, ms) : null}
              />
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function pauseWords(step: VisitStep, moment: MomentView): string {
  if (step.does === 'return' && moment.kind !== 'other')
    return step.deployed ? 'after the deploy' : 'all connections gone';
  return `${time(step.dwellMs)} later`;
}

function Row({
  moment,
  words,
  after,
  where,
  requests,
  scale,
  chosen,
  onChoose,
  onLead,
}: {
  moment: MomentView;
  words: string;
  after: string;
  where: string;
  requests: VisitView['pages'][number]['requests'];
  scale: Scale;
  chosen: boolean;
  onChoose: () => void;
  onLead: ((ms: number) => void) | null;
}) {
  const nothing = moment.kind === 'other';
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  return (
    <div ref={row} className={`${GRID} scroll-mt-8 px-4 ${chosen ? 'bg-mark' : 'hover:bg-band'}`}>
      <button
        type="button"
        data-moment
        aria-current={chosen ? 'true' : undefined}
        onClick={onChoose}
        className="relative flex h-11 min-w-0 items-center gap-3 text-left"
      >
        <span
          aria-hidden="true"
          className={`z-[1] size-[13px] shrink-0 rounded-full border-2 ${chosen ? 'border-ink bg-ink' : 'border-faint bg-sheet'}`}
        />
        <span className="min-w-0">
          <span className={`block truncate ${chosen ? 'font-semibold' : ''}`} title={`${words} ${where}`}>
            {words} {where}
          </span>
          {after ? <span className="block truncate text-[11px] text-soft">{after}</span> : null}
        </span>
      </button>
      <MomentTrack moment={moment} requests={requests} scale={scale} onLead={onLead} />
      <span className="text-right">
        {nothing ? (
          <span className="text-soft">{moment.bytes > 0 ? size(moment.bytes) : '–'}</span>
        ) : moment.failed ? (
          <span className="font-semibold text-worse">fails</span>
        ) : (
          <>
            <span className={`block ${chosen ? 'font-semibold' : ''}`}>{time(moment.wait)}</span>
            {Number.isFinite(moment.was) && Math.abs(moment.wait - moment.was) >= 1 ? (
              <span className="block text-[11px] leading-tight">
                <Change value={moment.wait - moment.was} format={time} />
              </span>
            ) : null}
          </>
        )}
      </span>
    </div>
  );
}

function Axis({ scale }: { scale: Scale }) {
  return (
    <svg width={scale.width} height={26} className="block" aria-hidden="true">
      <title>ms around the act</title>
      {marksOf(scale, 7).map((ms) => (
        <g key={ms}>
          <line x1={scale.x(ms)} x2={scale.x(ms)} y1={18} y2={26} stroke={ms === 0 ? 'var(--ink)' : 'var(--line)'} />
          <text x={scale.x(ms)} y={13} fontSize={11} textAnchor="middle" fill={ms === 0 ? 'var(--ink)' : 'var(--soft)'}>
            {ms === 0 ? 'act' : ms < 0 ? `−${time(-ms)}` : time(ms)}
          </text>
        </g>
      ))}
    </svg>
  );
}
