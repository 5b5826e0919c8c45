'use client';

import { useState } from 'react';
import { toast } from '../parts/toast.ts';
import { useWorkbench } from '../state/workbench.ts';

/** Told when the plan was changed elsewhere: nothing is overwritten, both ways out are offered. */
export function ConflictBar() {
  const conflict = useWorkbench((s) => s.conflict);
  const takeTheirs = useWorkbench((s) => s.takeTheirs);
  const keepMine = useWorkbench((s) => s.keepMine);
  const [copying, setCopying] = useState(false);
  if (!conflict) return null;
  const copy = () => {
    setCopying(true);
    keepMine()
      .catch((error: Error) => toast.error(`The copy couldn’t be made; your change is kept here. ${error.message}`))
      .finally(() => setCopying(false));
  };
  return (
    <div role="alert" className="flex items-center gap-4 border-b border-line bg-mark px-4 py-2">
      <span>
        <strong className="font-semibold">“{conflict.name}” was changed in another tab.</strong> Your last change isn’t
        saved yet. Nothing was overwritten.
      </span>
      <button type="button" onClick={takeTheirs} className="rounded bg-ink px-3 py-1 font-medium text-on-ink">
        Reload theirs
      </button>
      <button
        type="button"
        disabled={copying}
        onClick={copy}
        className="rounded border border-ink px-3 py-1 disabled:opacity-40"
      >
        Keep mine as a copy
      </button>
    </div>
  );
}
