'use client';

import { useState } from 'react';
import { Choice } from '../parts/choice.tsx';
import { later } from '../parts/later.tsx';
import { storedPlan, useWorkbench } from '../state/workbench.ts';
import { openSheet } from './sheets/open-sheet.ts';

const NewPlan = later(() => import('./sheets/new-plan.tsx').then((m) => m.NewPlan));

const NEW = ':new';
const COPY = ':copy';
const SHEET = ':sheet';

function decisionsWord(n: number): string {
  return n === 1 ? '1 decision' : `${n} decisions`;
}

/** The plan that is open, beside the baseline that it is compared with; makes new ones. */
export function PlanChoice() {
  const plans = useWorkbench((s) => s.project?.plans) ?? [];
  const planId = useWorkbench((s) => s.planId);
  const plan = useWorkbench((s) => storedPlan(s));
  const choosePlan = useWorkbench((s) => s.choosePlan);
  const [making, setMaking] = useState<'new' | 'copy' | null>(null);
  return (
    <>
      <Choice
        caption="plan, against baseline"
        value={planId ?? 'baseline'}
        shown={plan ? `${plan.name} · ${decisionsWord(plan.decisions.length)}` : 'Baseline, as built'}
        options={[
          { value: 'baseline', label: 'Baseline', note: 'as built' },
          ...plans.map((p) => ({ value: p.id, label: p.name, note: decisionsWord(p.decisions.length) })),
          { value: NEW, label: 'New plan …' },
          ...(plan
            ? [
                { value: COPY, label: `Copy “${plan.name}” …` },
                { value: SHEET, label: `“${plan.name}”: its decisions, name …` },
              ]
            : []),
        ]}
        onChange={(next) => {
          if (next === NEW) setMaking('new');
          else if (next === COPY) setMaking('copy');
          else if (next === SHEET) openSheet('plan');
          else choosePlan(next === 'baseline' ? null : next);
        }}
      />
      {making ? <NewPlan copyOf={making === 'copy' ? plan?.name : undefined} onClose={() => setMaking(null)} /> : null}
    </>
  );
}
