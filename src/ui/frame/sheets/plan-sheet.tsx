'use client';

import { useState } from 'react';
import { decisionWords, planDifference, shipsBy, subjectOf } from '../../../core/plan/decisions.ts';
import { counted } from '../../../core/text/counted.ts';
import { DecisionLine } from '../../parts/decision-line.tsx';
import { TextField } from '../../parts/field.tsx';
import { Modal } from '../../parts/modal.tsx';
import { toast } from '../../parts/toast.ts';
import { useLanding } from '../../state/landing.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';
import { closeSheet } from './open-sheet.ts';

/** The open plan: name, description, and its decisions in words, each to be taken back. */
export function PlanSheet() {
  const plan = useWorkbench((s) => storedPlan(s));
  if (!plan)
    return (
      <Modal
        title="Baseline"
        about="The app as built: no decisions. Choose or make a plan to decide."
        width="middle"
        onClose={closeSheet}
      >
        {null}
      </Modal>
    );
  return <OpenPlan key={plan.id} onClose={closeSheet} />;
}

function OpenPlan({ onClose }: { onClose: () => void }) {
  const plan = useWorkbench((s) => storedPlan(s))!;
  const describePlan = useWorkbench((s) => s.describePlan);
  const removePlan = useWorkbench((s) => s.removePlan);
  const withdraw = useWorkbench((s) => s.withdraw);
  const stale = useLanding((s) => s.stale);
  const blocked = useLanding((s) => s.blocked);
  const [sure, setSure] = useState(false);
  const save = (change: { name?: string; description?: string }) => {
    describePlan(change).catch((error: Error) => toast.error(error.message));
  };
  return (
    <Modal title={plan.name} width="wide" onClose={onClose}>
      <TextField
        label="Name (Enter saves it, Escape leaves it)"
        value={plan.name}
        check={(name) => (name === '' ? 'Give it a name.' : name.length > 80 ? 'At most 80 letters.' : null)}
        onTake={(name) => save({ name })}
      />
      <div className="mt-2">
        <TextField
          label="What it is for"
          value={plan.description}
          check={(text) => (text.length > 2000 ? 'At most 2000 letters.' : null)}
          onTake={(description) => save({ description })}
        />
      </div>
      <Origin />
      <h3 className="mt-4 mb-1 font-semibold">
        {plan.decisions.length === 0
          ? 'No decisions yet'
          : `${counted(plan.decisions.length, 'decision')}, in their order`}
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
              onTakeBack={() => withdraw([subjectOf(d)], `remove: ${decisionWords(d)}`)}
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
            : `${counted(lines.length, 'decision')} differ`}
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
