'use client';

import { InputError } from '../../../../core/errors.ts';
import { checkBase } from '../../../../core/snapshot/base.ts';
import { TextField } from '../../../parts/field.tsx';
import { useAmendments } from '../../../state/amendments.ts';
import { useWorkbench } from '../../../state/workbench.ts';

/** Under which address the app's files are served. A wrong one makes every deferred load fail, so it is checked. */
export function BaseField() {
  const base = useWorkbench((s) => s.app?.base) ?? '/';
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  return (
    <TextField
      label="Base address of the files"
      mono
      value={base}
      check={trouble}
      onTake={(next) => amend({ ...amendments, base: next }, `base address ${next}`)}
    />
  );
}

function trouble(text: string): string | null {
  try {
    checkBase(text, 'base');
    return null;
  } catch (error) {
    return error instanceof InputError ? error.detail : String(error);
  }
}
