'use client';

import { analyst } from '../../../worker/client.ts';
import { useAsked } from '../../state/asked.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { fileStem, TextHead } from './text-head.tsx';
import { TextView } from './text-view.tsx';

/** The predicted landing as an archive that other programs read. */
export function HarPage({ plan }: { plan: string }) {
  const route = useWorkbench((s) => s.route);
  const { found, error } = useAsked(({ plan, route, conditions }) =>
    analyst().handoff.har(plan, route, conditions, new Date().toISOString()),
  );
  if (error) return <p className="text-worse">{error}</p>;
  if (!found) return <p className="text-soft">Writing the landing.</p>;
  const use = `The landing on ${route} as predicted, as an HTTP Archive (HAR 1.2).`;
  return (
    <>
      <TextHead
        name="Predicted landing"
        use={use}
        text={found}
        file={`${fileStem(plan)}.har`}
        mime="application/json"
      />
      <TextView name="Predicted landing" text={found} />
    </>
  );
}
