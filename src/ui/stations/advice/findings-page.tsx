'use client';

import type { Fact, Finding } from '../../../core/advise/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { percent, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { chooseFinding, type Pace, stopAdvice, useAdvice, useFindings, useFoundSoFar } from '../../state/advice.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';
import { FindingSheet } from './finding-sheet.tsx';
import { FindingsList } from './findings-list.tsx';
import { ManyFindingsSheet } from './many-findings-sheet.tsx';
import { useFindingChoice } from './use-finding-choice.ts';

/** All that is worth changing, by what it saves a visit, each measured; one of them with its reasons. */
export function FindingsPage() {
  const { advice, done, pace, error, chosen, old } = useAdvice();
  const { open: soFar } = useFoundSoFar();
  const { open, aside } = useFindings();
  const all = [...open, ...aside.map((a) => a.finding)];
  const finding = all.find((f) => f.id === chosen) ?? open[0] ?? null;
  const choice = useFindingChoice(open);
  if (error) return <Message title="No advice can be worked out">{error}</Message>;
  if (!advice)
    return soFar.length === 0 ? (
      <Message title="Looking for what is worth changing">
        Every candidate is tried on a copy of the plan and measured. {percent(done)} done. <StopButton pace={pace} />
      </Message>
    ) : (
      <SoFar findings={soFar} done={done} pace={pace} chosen={chosen} />
    );
  return (
    <StationGrid id="findings" aside={340} busy={old} className={old ? 'opacity-60' : ''}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        <h1 className="text-[15px] font-semibold">What is worth changing</h1>
        <p className="mb-3 text-soft" aria-live="polite">
          {done < 1 || old
            ? `measuring again for the plan as it is now … ${percent(done)}`
            : `${counted(open.length, 'finding')}, each measured over all landings, moves and acts under the chosen conditions`}
        </p>
        {open.length === 0 ? (
          <p className="text-soft">
            Nothing more that helps here was found. A slower link or another device at the top may show more.
          </p>
        ) : (
          <FindingsList
            findings={open}
            chosen={finding?.id ?? null}
            marks={choice.marks}
            onChoose={choice.onChoose}
            onMark={choice.onMark}
          />
        )}
        {aside.length > 0 ? (
          <>
            <h2 className="mt-6 mb-1 font-semibold">Dismissed</h2>
            <ul>
              {aside.map(({ finding: f, reason }) => (
                <li key={f.id} className="border-t border-line py-1">
                  <button type="button" className="text-left hover:underline" onClick={() => chooseFinding(f.id)}>
                    {f.what}
                  </button>
                  <span className="text-soft"> · {reason || 'no reason given'}</span>
                </li>
              ))}
            </ul>
          </>
        ) : null}
        {advice.facts.length > 0 ? <Facts facts={advice.facts} /> : null}
        {advice.noGain.length > 0 ? (
          <details className="mt-6">
            <summary className="cursor-default text-soft">{advice.noGain.length} more were tried without gain</summary>
            <ul className="mt-1">
              {advice.noGain.map((n) => (
                <li key={n.id} className="flex justify-between gap-4 border-t border-line py-1">
                  <span>{n.what}</span>
                  <span className="shrink-0 text-soft">
                    {n.cost > 0.5 ? `${time(n.cost)} more per visit` : 'no difference'}
                  </span>
                </li>
              ))}
            </ul>
          </details>
        ) : null}
      </div>
      <Details choice={choice} finding={finding} aside={aside.find((a) => a.finding === finding)?.reason ?? null} />
    </StationGrid>
  );
}

/** Those that are chosen together, else the one that is looked at. `aside`: why that one was dismissed. */
function Details({
  choice,
  finding,
  aside,
}: {
  choice: ReturnType<typeof useFindingChoice>;
  finding: Finding | null;
  aside: string | null;
}) {
  return (
    <Aside label="Details">
      {choice.marked.length > 0 ? (
        <ManyFindingsSheet findings={choice.marked} onClear={choice.clear} />
      ) : finding ? (
        <FindingSheet key={finding.id} finding={finding} aside={aside} />
      ) : null}
    </Aside>
  );
}

/** What was found while the rest is still being tried; it can be looked at, tried and applied already. */
function SoFar({
  findings,
  done,
  pace,
  chosen,
}: {
  findings: readonly Finding[];
  done: number;
  pace: Pace;
  chosen: string | null;
}) {
  const finding = findings.find((f) => f.id === chosen) ?? findings[0];
  const choice = useFindingChoice(findings);
  return (
    <StationGrid id="findings" aside={340}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        <h1 className="text-[15px] font-semibold">What is worth changing</h1>
        <p className="mb-3 flex items-center gap-3 text-soft" aria-live="polite">
          {counted(findings.length, 'finding')} so far; {percent(done)} of what could help is tried
          {PACES[pace]}
          <StopButton pace={pace} />
        </p>
        <FindingsList
          findings={findings}
          chosen={finding.id}
          marks={choice.marks}
          onChoose={choice.onChoose}
          onMark={choice.onMark}
        />
      </div>
      <Details choice={choice} finding={finding} aside={null} />
    </StationGrid>
  );
}

const PACES: Record<Pace, string> = {
  'going on': '',
  stopping: '; it stops when what is being tried is measured',
  stopped: ', then it was stopped',
};

function StopButton({ pace }: { pace: Pace }) {
  return (
    <button
      type="button"
      className="rounded border border-line px-2.5 py-0.5 text-ink hover:border-ink"
      onClick={() => stopAdvice(pace === 'going on')}
    >
      {pace === 'going on' ? 'Stop' : 'Go on'}
    </button>
  );
}

/** What is so, whatever it costs. */
function Facts({ facts }: { facts: Fact[] }) {
  const named = useWorkbench((s) => storedPlan(s));
  const withdraw = useWorkbench((s) => s.withdraw);
  return (
    <>
      <h2 className="mt-6 mb-1 font-semibold">Worth knowing</h2>
      <ul>
        {facts.map((f) => (
          <li key={f.id} className="flex items-start justify-between gap-4 border-t border-line py-1">
            <span className="min-w-0 break-words">
              {f.what}
              <span className="block text-[11px] text-soft">{f.why}</span>
            </span>
            {f.withdraw.length > 0 && named ? (
              <button
                type="button"
                className="shrink-0 rounded border border-line px-2 py-0.5 hover:border-ink"
                onClick={() => withdraw(f.withdraw, `remove: ${f.what}`)}
              >
                Remove
              </button>
            ) : null}
          </li>
        ))}
      </ul>
    </>
  );
}
