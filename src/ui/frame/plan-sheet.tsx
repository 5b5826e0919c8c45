'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { create } from 'zustand';
import { decisionWords, planDifference, shipsBy, subjectOf } from '../../core/plan/decisions.ts';
import { DecisionLine } from '../parts/decision-line.tsx';
import { Modal } from '../parts/modal.tsx';
import { useLanding } from '../state/landing.ts';
import { storedPlan, useWorkbench } from '../state/workbench.ts';

export const usePlanSheet = create<{ open: boolean }>()(() => ({ open: false }));

/** The open plan: name, description, and its decisions in words, each to be taken back. */
export function PlanSheet() {
  const open = usePlanSheet((s) => s.open);
  const plan = useWorkbench((s) => storedPlan(s));
  if (!open) return null;
  const close = () => usePlanSheet.setState({ open: false });
  if (!plan)
    return (
      <Modal
        title="Baseline"
        about="The app as built: no decisions. Choose or make a plan to decide."
        width="middle"
        onClose={close}
      >
        {null}
      </Modal>
    );
  return <OpenPlan key={plan.id} onClose={close} />;
}

function OpenPlan({ onClose }: { onClose: () => void }) {
  const plan = useWorkbench((s) => storedPlan(s))!;
  const describePlan = useWorkbench((s) => s.describePlan);
  const removePlan = useWorkbench((s) => s.removePlan);
  const withdraw = useWorkbench((s) => s.withdraw);
  const stale = useLanding((s) => s.stale);
  const blocked = useLanding((s) => s.blocked);
  const [name, setName] = useState(plan.name);
  const [description, setDescription] = useState(plan.description);
  const [sure, setSure] = useState(false);
  const save = async () => {
    if (name.trim() === '' || (name.trim() === plan.name && description === plan.description)) return;
    try {
      await describePlan({ name: name.trim(), description });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  const field = 'mt-0.5 w-full rounded border border-line bg-paper px-2 py-1 text-ink';
  return (
    <Modal title={plan.name} width="wide" onClose={onClose}>
      <label className="block text-soft">
        Name
        <input
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => void save()}
          className={field}
        />
      </label>
      <label className="mt-2 block text-soft">
        What it is for
        <textarea
          value={description}
          maxLength={2000}
          rows={2}
          onChange={(event) => setDescription(event.target.value)}
          onBlur={() => void save()}
          className={field}
        />
      </label>
      <Origin />
      <h3 className="mt-4 mb-1 font-semibold">
        {plan.decisions.length === 0 ? 'No decisions yet' : `${plan.decisions.length} decisions, in their order`}
      </h3>
      <ol className="max-h-72 overflow-y-auto">
        {plan.decisions.map((d, at) => {
          const lost = stale.filter((s) => s.decision === at).map((s) => `doesn’t apply: ${s.reason}`);
          const hard = blocked
            .filter((b) => b.decision === at)
            .map((b) => `takes more than detaching: ${b.reason} (${b.import.split('::')[0]}, line ${b.line})`);
          return (
            <DecisionLine
              key={subjectOf(d)}
              decision={d}
              note={d.kind === 'put aside' ? 'a note' : `by ${shipsBy(d)}`}
              troubles={[...lost, ...hard]}
              onTakeBack={() => withdraw([subjectOf(d)], `take back: ${decisionWords(d)}`)}
            />
          );
        })}
      </ol>
      <div className="mt-4 flex justify-between">
        {sure ? (
          <span>
            Delete it for good?{' '}
            <button
              type="button"
              className="ml-1 text-worse underline"
              onClick={() =>
                void removePlan().then(onClose, (error: Error) => {
                  toast.error(error.message);
                })
              }
            >
              delete
            </button>
            <button type="button" className="ml-3 underline" onClick={() => setSure(false)}>
              keep
            </button>
          </span>
        ) : (
          <button type="button" className="text-soft underline hover:text-worse" onClick={() => setSure(true)}>
            delete this plan
          </button>
        )}
        <button type="button" onClick={onClose} className="rounded border border-line px-3 py-1.5">
          Close
        </button>
      </div>
    </Modal>
  );
}

/** The plan that this one began as a copy of, and how they differ by now. */
function Origin() {
  const plan = useWorkbench((s) => storedPlan(s))!;
  const origin = useWorkbench((s) => s.project?.plans.find((p) => p.name === plan.basedOn));
  const decide = useWorkbench((s) => s.decide);
  if (!origin) return null;
  const { added, missing, changed } = planDifference(plan, origin);
  const lines = [
    ...added.map((d) => `more: ${decisionWords(d)}`),
    ...missing.map((d) => `not here: ${decisionWords(d)}`),
    ...changed.map(({ now, was }) => `otherwise: ${decisionWords(now)}, there ${decisionWords(was)}`),
  ];
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">
        Based on “{origin.name}”,{' '}
        {lines.length === 0
          ? 'still the same'
          : lines.length === 1
            ? 'one decision differs'
            : `${lines.length} decisions differ`}
      </summary>
      <ul className="mt-1 text-soft">
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      {missing.length > 0 ? (
        <button
          type="button"
          className="mt-1 underline"
          onClick={() => decide(missing, `take over from “${origin.name}”`)}
        >
          take over what is not here
        </button>
      ) : null}
    </details>
  );
}
