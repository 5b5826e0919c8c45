'use client';

import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { Choice } from '../parts/choice.tsx';
import { storedPlan, useWorkbench } from '../state/workbench.ts';

const NEW = ':new';
const COPY = ':copy';

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
          ...(plan ? [{ value: COPY, label: `Copy “${plan.name}” …` }] : []),
        ]}
        onChange={(next) => {
          if (next === NEW) setMaking('new');
          else if (next === COPY) setMaking('copy');
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
      await addPlan(name.trim(), copyOf ? (plan?.decisions ?? []) : []);
      onClose();
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 z-50 w-80 -translate-x-1/2 rounded border border-line bg-sheet p-5 shadow-xl"
        >
          <Dialog.Title className="mb-3 text-base font-semibold">
            {copyOf ? `Copy “${copyOf}”` : 'New plan'}
          </Dialog.Title>
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
            <div className="mt-4 flex justify-end gap-2">
              <button type="button" onClick={onClose} className="rounded border border-line px-3 py-1.5">
                Cancel
              </button>
              <button
                type="submit"
                disabled={name.trim() === ''}
                className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink disabled:opacity-40"
              >
                Make plan
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
