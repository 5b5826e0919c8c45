'use client';

import type { Remedy } from '../../../core/advise/types.ts';
import { usePreviewOf } from '../../state/trial.ts';

/** Shows a change on the live strip and in every drawing, over the plan as it is, without making it. */
export function PreviewButton({ remedy }: { remedy: Remedy }) {
  const { on, toggle } = usePreviewOf(remedy);
  return (
    <button
      type="button"
      aria-pressed={on}
      title="Shows it on the strip and in every drawing, without changing the plan"
      onClick={toggle}
      className={`rounded border px-2.5 py-1.5 ${on ? 'border-ink bg-mark' : 'border-line hover:border-ink'}`}
    >
      Preview
    </button>
  );
}
