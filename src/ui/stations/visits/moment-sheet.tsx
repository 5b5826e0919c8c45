'use client';

import type { ReactNode } from 'react';
import { subjectOf } from '../../../core/plan/decisions.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { shortName } from '../../../core/text/short-name.ts';
import type { Visit } from '../../../core/visits/types.ts';
import type { Trigger } from '../../../core/vocabulary/triggers.ts';
import type { MomentView } from '../../../worker/services/visits.ts';
import { NumberField } from '../../parts/field.tsx';
import { size, time } from '../../parts/format.ts';
import { TriggerPills } from '../../parts/trigger-pills.tsx';
import { changeStep, removeStep, useVisitChoice } from '../../state/visit.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';
import { LeadSlider } from './lead-slider.tsx';
import { meanwhile, momentWords } from './words.ts';

const LONGEST_DWELL = 3_600_000;

/** All about one moment: what the person waited for and looked at, the lead, and when its code is fetched. */
export function MomentSheet({ visit, moment }: { visit: Visit; moment: MomentView }) {
  const { device } = useConditions();
  const step = visit.steps[moment.step];
  const at = moment.step;
  const hasLead = step !== undefined && 'leadMs' in step && step.does !== 'scroll';
  return (
    <>
      <p className="text-[11px] text-soft">{at < 0 ? 'the landing' : `moment ${at + 1}`}</p>
      <h2 className="text-[15px] font-semibold break-words">
        {momentWords(moment, step)} {at < 0 ? visit.landing : ''}
      </h2>
      {moment.kind === 'other' ? null : (
        <dl className="mt-3 grid grid-cols-[auto_auto] gap-y-1">
          <Figure name="until it shows" strong={moment.wait === moment.shown}>
            {time(moment.shown)}
          </Figure>
          {Number.isFinite(moment.answering) ? (
            <Figure name="until it answers" strong={moment.wait !== moment.shown}>
              {time(moment.answering)}
            </Figure>
          ) : null}
          <Figure name="until all of it is there">{time(moment.complete)}</Figure>
          {moment.taken > 1 ? <Figure name="of it until the page takes the act">{time(moment.taken)}</Figure> : null}
          <Figure name="travels for it">
            {size(moment.bytes)}, {moment.requests.length} {moment.requests.length === 1 ? 'request' : 'requests'}
          </Figure>
        </dl>
      )}
      {moment.kind === 'other' ? null : <p className="mt-2 text-soft">Meanwhile: {meanwhile(moment)}.</p>}
      {moment.parts.length > 1 ? (
        <details className="mt-2">
          <summary className="cursor-default text-soft">
            {counted(moment.parts.length, 'part')}, in the order in which they come
          </summary>
          <ol className="mt-1">
            {moment.parts.map((p) => (
              <li key={p.name} className="flex justify-between gap-3">
                <span className="truncate">{p.name}</span>
                <span>{time(p.shown)}</span>
              </li>
            ))}
          </ol>
        </details>
      ) : null}
      <Conditions visit={visit} step={at} />
      {moment.splitPoint ? <FetchWhen splitPoint={moment.splitPoint} page={moment.kind === 'move'} /> : null}
      {step && !moment.splitPoint && (step.does === 'act' || step.does === 'scroll') ? (
        <p className="mt-3 text-soft">
          Its code comes with the start, so nothing is fetched for it. Split can make it come later.
        </p>
      ) : null}
      {hasLead && moment.kind !== 'document' ? (
        <LeadSlider
          visit={visit}
          step={at}
          lead={step.leadMs}
          touch={device.touch}
          onTake={(leadMs) => changeStep(visit, at, { leadMs })}
        />
      ) : null}
      {step ? (
        <section className="mt-4 flex items-end justify-between gap-3">
          <NumberField
            label="After the moment before"
            unit="ms"
            most={LONGEST_DWELL}
            value={step.dwellMs}
            onTake={(dwellMs) => changeStep(visit, at, { dwellMs })}
          />
          <button
            type="button"
            className="rounded border border-line px-2.5 py-1 hover:border-ink"
            onClick={() => removeStep(visit, at)}
          >
            {step.does === 'move' || step.does === 'return' ? 'End it before' : 'Leave it out'}
          </button>
        </section>
      ) : null}
    </>
  );
}

function Figure({ name, strong = false, children }: { name: string; strong?: boolean; children: ReactNode }) {
  return (
    <>
      <dt className="text-soft">{name}</dt>
      <dd className={`text-right ${strong ? 'font-semibold' : ''}`}>{children}</dd>
    </>
  );
}

/** Conditional parts of the route that is come to: which of them hold in this visit. */
function Conditions({ visit, step }: { visit: Visit; step: number }) {
  const routes = useWorkbench((s) => s.app?.routes) ?? [];
  const taken = visit.steps[step];
  const holder = step < 0 ? visit : taken && 'holds' in taken ? taken : null;
  if (!holder) return null;
  const pattern = 'landing' in holder ? holder.landing : holder.to;
  const parts = (routes.find((r) => r.pattern === pattern)?.parts ?? []).filter(
    (p) => p.place === 'conditional' && p.condition?.kind !== 'media',
  );
  if (parts.length === 0) return null;
  const set = (holds: string[]) =>
    step < 0 ? useVisitChoice.setState({ script: { ...visit, holds } }) : changeStep(visit, step, { holds });
  return (
    <fieldset className="mt-4">
      <legend className="mb-1 font-semibold">In this visit it needs</legend>
      {parts.map((p) => (
        <label key={p.id} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={holder.holds.includes(p.id)}
            onChange={(e) => set(e.target.checked ? [...holder.holds, p.id] : holder.holds.filter((h) => h !== p.id))}
          />
          {p.name}
        </label>
      ))}
    </fieldset>
  );
}

/** When the code of the moment is fetched: a decision of the plan, tried right here. */
function FetchWhen({ splitPoint, page }: { splitPoint: { module: string; fetch: Trigger }; page: boolean }) {
  const decide = useWorkbench((s) => s.decide);
  return (
    <section className="mt-4">
      <h3 className="mb-1.5 font-semibold">Its code is fetched</h3>
      <TriggerPills
        now={splitPoint.fetch}
        onPick={(fetch) => decide([{ kind: 'trigger', splitPoint: splitPoint.module, fetch }])}
      />
      {page ? <p className="mt-1.5 text-soft">Wherever a link leads there; it runs only when somebody goes.</p> : null}
      {page && splitPoint.fetch.on !== 'action' ? <AnswerAhead module={splitPoint.module} /> : null}
    </section>
  );
}

const USUAL_KEEP_MS = 30_000;

/** The answer of the next page fetched with its code, and how long it is good for. */
function AnswerAhead({ module }: { module: string }) {
  const plan = usePlan();
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  const old = plan.decisions.find((d) => d.kind === 'split' && d.splitPoint === module);
  const { answerAhead, ...rest } =
    old?.kind === 'split' ? old : { kind: 'split' as const, splitPoint: module, answerAhead: undefined };
  const set = (keepMs: number | null) => {
    const next: Decision = { ...rest, ...(keepMs === null ? {} : { answerAhead: { keepMs } }) };
    if (Object.keys(next).length > 2) decide([next]);
    else withdraw([subjectOf(next)], `${shortName(module)}: its answer is not fetched ahead`);
  };
  return (
    <div className="mt-2">
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={answerAhead !== undefined}
          onChange={(event) => set(event.target.checked ? USUAL_KEEP_MS : null)}
        />
        its answer as well
      </label>
      {answerAhead ? (
        <div className="mt-1.5">
          <NumberField
            label="good for"
            unit="s"
            most={3600}
            value={answerAhead.keepMs / 1000}
            onTake={(s) => set(s * 1000)}
          />
        </div>
      ) : null}
    </div>
  );
}
