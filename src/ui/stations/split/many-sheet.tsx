'use client';

import type { Decision } from '../../../core/plan/types.ts';
import { size } from '../../parts/format.ts';
import { BeforeAfter } from './before-after.tsx';
import { usePreview } from './use-outline.ts';

/** Several imports that are chosen together, as one decision: what detaching them all would do. */
export function ManySheet({
  title,
  note,
  own,
  decisions,
  onDetach,
  onClear,
}: {
  title: string;
  note: string;
  /** Compressed bytes of the modules that they lead to. */
  own: number;
  decisions: Decision[];
  onDetach: () => void;
  onClear: () => void;
}) {
  const preview = usePreview(decisions.length > 0 ? decisions : null);
  return (
    <>
      <h2 className="text-[15px] font-semibold break-words">{title}</h2>
      <p className="mb-3 text-soft">{note}</p>
      <button
        type="button"
        disabled={decisions.length === 0}
        onClick={onDetach}
        className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink disabled:opacity-40"
      >
        Detach {decisions.length > 1 ? 'them all' : 'it'} <kbd className="ml-1 font-mono text-xs opacity-70">d</kbd>
      </button>
      <button type="button" onClick={onClear} className="ml-3 text-soft underline hover:text-ink">
        choose none
      </button>
      <dl className="mt-4 grid grid-cols-[1fr_auto] gap-y-1">
        <dt>self size of what they lead to</dt>
        <dd className="text-right">{size(own)}</dd>
      </dl>
      {decisions.length === 0 ? (
        <p className="mt-3 text-soft">Nothing outside of this folder imports it in the start.</p>
      ) : (
        <>
          <h3 className="mt-5 -mb-4 text-soft">If you detach {decisions.length > 1 ? 'them all' : 'it'}</h3>
          <BeforeAfter preview={preview} />
        </>
      )}
    </>
  );
}
