'use client';

import { useState } from 'react';
import { Modal, ModalButtons } from '../../parts/modal.tsx';
import { toast } from '../../parts/toast.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';

/** Asks for the name of a plan that begins empty, or as a copy of the open one. */
export function NewPlan({ copyOf, onClose }: { copyOf: string | undefined; onClose: () => void }) {
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
