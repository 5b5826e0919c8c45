'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { Choice } from '../parts/choice.tsx';
import { Modal, ModalButtons } from '../parts/modal.tsx';
import { storedPlan, useWorkbench } from '../state/workbench.ts';
import { usePlanSheet } from './plan-sheet.tsx';

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
          else if (next === SHEET) usePlanSheet.setState({ open: true });
          else choosePlan(next === 'baseline' ? null : next);
        }}
      />
      {making ? (
        <NameDialog copyOf={making === 'copy' ? plan?.name : undefined} onClose={() => setMaking(null)} />
      ) : null}
    </>
  );
}

function NameDialog({ copyOf, onClose }: { copyOf: string | undefined; onClose: () => void }) {
  const addPlan = useWorkbench((s) => s.addPlan);
  const plan = useWorkbench((s) => storedPlan(s));
  const [name, setName] = useState(copyOf ? `${copyOf}, copy` : '');
  const make = async () => {
    try {
      await addPlan(name.trim(), copyOf ? (plan?.decisions ?? []) : [], copyOf);
      onClose();
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Modal title={copyOf ? `Copy “${copyOf}”` : 'New plan'} width="narrow" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <label className="block text-soft" htmlFor="plan-name">
          Name
        </label>
        <input
          id="plan-name"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          className="mt-1 w-full rounded border border-line bg-paper px-2 py-1.5"
        />
        <ModalButtons stop="Cancel" onStop={onClose} go="Make plan" ready={name.trim() !== ''} />
      </form>
    </Modal>
  );
}
