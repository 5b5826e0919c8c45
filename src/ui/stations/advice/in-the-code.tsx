'use client';

import { useState } from 'react';
import type { Remedy } from '../../../core/advise/types.ts';
import { planWith, shipsBy } from '../../../core/plan/decisions.ts';
import type { PatchStep } from '../../../patch/types.ts';
import { Few } from '../../parts/few.tsx';
import { api } from '../../state/api.ts';
import { useWork } from '../../state/work.ts';
import { usePlan, useWorkbench } from '../../state/workbench.ts';

/** Who walks through the findings asks for the edits of the one at which they stop. In ms. */
const REST_MS = 250;
const MOST = 4;

/** Whether the source patch can write what a change means for imports, and what is left to be done by hand with the reason. */
export function InTheCode({ remedy }: { remedy: Remedy }) {
  const project = useWorkbench((s) => s.project?.id);
  const plan = usePlan();
  const [steps, setSteps] = useState<PatchStep[] | string | null>(null);
  const asked = JSON.stringify(remedy);
  const edits = remedy.decisions.some((d) => shipsBy(d) === 'source edit' && d.kind !== 'trigger');
  useWork(
    async (wanted) => {
      setSteps(null);
      if (!project || !edits) return;
      const { decisions } = planWith({ ...plan, decisions: [] }, JSON.parse(asked) as Remedy);
      await new Promise((go) => setTimeout(go, REST_MS));
      if (!wanted()) return;
      const found = await api.patch(project, plan.name, decisions);
      // When something is fetched is said with the decision, and by the handoff's import triggers.
      if (wanted()) setSteps(found.steps.filter((s) => decisions[s.decision].kind !== 'trigger'));
    },
    (reason) => setSteps(reason.message),
    [project, plan, asked, edits],
  );
  if (typeof steps === 'string') return <p className="mt-4 text-soft">The sources can’t be looked at: {steps}</p>;
  if (!edits || steps?.length === 0) return null;
  const hand = steps?.filter((s) => s.state === 'by hand' || s.state === 'refused') ?? [];
  return (
    <section aria-label="In the code" className="mt-4">
      <h3 className="font-semibold">In the code</h3>
      {steps === null ? (
        <p className="text-soft">looking at the sources …</p>
      ) : hand.length === 0 ? (
        <p className="text-soft">The source patch writes all of it.</p>
      ) : (
        <>
          <p className="text-soft">
            {hand.length === steps.length
              ? 'Not by the source patch:'
              : `The source patch writes ${steps.length - hand.length} of ${steps.length} edits; not:`}
          </p>
          <ul>
            <Few rows={hand} most={MOST} as="li">
              {(s) => (
                <li key={`${s.path} ${s.line} ${s.what}`} className="border-t border-line py-0.5 break-words">
                  <span className="font-mono text-[11px]">
                    {s.path}:{s.line}
                  </span>{' '}
                  {s.what}
                </li>
              )}
            </Few>
          </ul>
        </>
      )}
    </section>
  );
}
