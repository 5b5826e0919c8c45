'use client';

import { remediesTogether } from '../../../core/advise/together.ts';
import type { Effect, Finding, Remedy } from '../../../core/advise/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { time } from '../../parts/format.ts';
import { Term } from '../../parts/term.tsx';
import { useFindings } from '../../state/advice.ts';
import { longWork } from '../../state/long-work.ts';
import { useAnswer } from '../../state/work.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';
import { EffectTables } from './effect-tables.tsx';
import { PreviewButton } from './preview-button.tsx';
import { savedBy } from './saved-by.ts';

/** Several findings that are chosen together: what all their changes do at once, which isn't the sum of what each does. */
export function ManyFindingsSheet({ findings, onClear }: { findings: readonly Finding[]; onClear: () => void }) {
  const { decide, take } = useWorkbench.getState();
  const { old } = useFindings();
  const ids = findings.map((f) => f.id).join('\n');
  const title = `${counted(findings.length, 'finding')} chosen`;
  const remedy = remediesTogether(
    `apply ${counted(findings.length, 'finding')}`,
    findings.map((f) => f.remedy),
  );
  const cautions = [...new Set(findings.flatMap((f) => f.cautions))];
  const { found: effect, error } = useEffectOf(remedy, ids);
  const apart = findings.filter((f) => f.basis.on !== 'a link' && !f.seen).reduce((sum, f) => sum + savedBy(f), 0);
  const dismissAll = () =>
    decide(
      findings.map((f) => ({ kind: 'put aside', finding: f.id, reason: '' })),
      `dismiss ${counted(findings.length, 'finding')}`,
    );
  return (
    <>
      <h2 className="text-[15px] font-semibold">{title}</h2>
      <p className="mb-3 text-soft">Ctrl and a click, or Space, adds more.</p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          disabled={old}
          title={old ? 'They are measured again for the plan as it is now' : undefined}
          onClick={() => {
            take(remedy);
            onClear();
          }}
          className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink disabled:opacity-40"
        >
          {cautions.length > 0 ? 'Apply them all anyway' : 'Apply them all'}
        </button>
        <PreviewButton remedy={remedy} />
        <button
          type="button"
          onClick={() => {
            dismissAll();
            onClear();
          }}
          className="rounded border border-line px-2.5 py-1.5 hover:border-ink"
        >
          Dismiss them all
        </button>
      </div>
      <button type="button" onClick={onClear} className="mt-2 text-soft underline hover:text-ink">
        choose none
      </button>
      {cautions.map((c) => (
        <p key={c} className="mt-2 break-words text-worse">
          Not as it is: {c}.
        </p>
      ))}
      <ul className="mt-4">
        {findings.map((f) => (
          <li key={f.id} className="flex justify-between gap-3 border-t border-line py-0.5">
            <span className="min-w-0 truncate" title={`${f.what}: ${f.remedy.words}`}>
              {f.what}
            </span>
            <span className="shrink-0 text-soft">{f.seen ? '' : `▾ ${time(savedBy(f))}`}</span>
          </li>
        ))}
      </ul>
      {error ? (
        <p className="mt-3 text-worse" role="alert">
          {error}
        </p>
      ) : effect ? (
        <Together effect={effect} apart={apart} />
      ) : (
        <p className="mt-3 text-soft">Measuring them together …</p>
      )}
    </>
  );
}

function Together({ effect, apart }: { effect: Effect; apart: number }) {
  const saves = -effect.cost;
  return (
    <>
      <h3 className="mt-5 font-semibold">
        Together{' '}
        <span className={saves >= 0 ? 'text-better' : 'text-worse'}>
          {saves >= 0 ? '▾' : '▴'} {time(Math.abs(saves))} <Term of="cost">per visit</Term>
        </span>
      </h3>
      <p className="mb-2 text-[11px] text-soft">
        One by one they would come to {time(apart)}: one often saves a part of what another does, or pays only after it.
      </p>
      <EffectTables effect={effect} />
    </>
  );
}

/** Measured anew when other findings are chosen, or the plan or the conditions change. */
function useEffectOf(remedy: Remedy, ids: string) {
  const plan = usePlan();
  const conditions = useConditions();
  return useAnswer(async () => (await longWork()).advice.effect(plan, remedy, conditions), [ids, plan, conditions]);
}
