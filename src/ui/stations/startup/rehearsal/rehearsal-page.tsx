'use client';

import { useEffect, useRef } from 'react';
import { BASELINE, type Plan } from '../../../../core/plan/types.ts';
import type { Rehearsal } from '../../../../core/rehearsals/types.ts';
import type { KeptRehearsal } from '../../../../store/rehearsals.ts';
import { analyst } from '../../../../worker/client.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { Message } from '../../../parts/message.tsx';
import { Aside, StationGrid } from '../../../parts/station-grid.tsx';
import { useWidth } from '../../../parts/use-width.ts';
import { api } from '../../../state/api.ts';
import { openRehearsals, useRehearsals } from '../../../state/rehearsals.ts';
import { useAnswer } from '../../../state/work.ts';
import { useWorkbench } from '../../../state/workbench.ts';
import { KeptList } from './kept-list.tsx';
import { PairedChart } from './paired-chart.tsx';
import { Results } from './results.tsx';
import { StartForm } from './start-form.tsx';

/** Landings that were run in a browser, each beside what is predicted of it. */
export function RehearsalPage() {
  const project = useWorkbench((s) => s.project?.id);
  const route = useWorkbench((s) => s.route);
  const kept = useRehearsals((s) => s.kept);
  const shownId = useRehearsals((s) => s.shown);
  useEffect(() => {
    if (project) openRehearsals(project).catch((error: Error) => useRehearsals.setState({ trouble: error.message }));
  }, [project]);
  const own = kept.filter((k) => k.summary.pattern === route);
  const shown = own.find((k) => k.id === shownId) ?? own[0] ?? null;
  return (
    <StationGrid id="rehearsed" aside={300}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        {shown ? <Shown key={shown.id} shown={shown} own={own} /> : <NothingYet route={route} />}
      </div>
      <Aside label="Rehearsing">
        <StartForm />
        <KeptList own={own} shown={shown?.id ?? null} />
      </Aside>
    </StationGrid>
  );
}

function NothingYet({ route }: { route: string }) {
  return (
    <Message title={`${route} wasn’t rehearsed yet`}>
      <p>
        A rehearsal builds the app’s files under your plan, serves them over the chosen link and lands on them in a real
        browser, without touching your code. What was measured is laid beside what is predicted here.
      </p>
      <p className="mt-2">Begin on the right.</p>
    </Message>
  );
}

const planOf = ({ summary, decisions }: KeptRehearsal): Plan =>
  decisions.length === 0 ? BASELINE : { name: summary.plan, description: '', decisions };

/** The newest rehearsal without decisions that was made under the same circumstances: what a plan is laid against. */
function baselineFor(shown: KeptRehearsal, own: readonly KeptRehearsal[]): KeptRehearsal | null {
  if (shown.decisions.length === 0) return null;
  const circumstances = ({ summary: { conditions, address, acts }, snapshotId }: KeptRehearsal) =>
    JSON.stringify([conditions, address, acts, snapshotId]);
  return own.find((k) => k.decisions.length === 0 && circumstances(k) === circumstances(shown)) ?? null;
}

function Shown({ shown, own }: { shown: KeptRehearsal; own: readonly KeptRehearsal[] }) {
  const app = useWorkbench((s) => s.app);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 840);
  const against = baselineFor(shown, own);
  const { found, error } = useAnswer<{ view: RehearsedView; rehearsal: Rehearsal }>(async () => {
    const made = async (kept: KeptRehearsal) => ({
      plan: planOf(kept),
      rehearsal: await api.keptRehearsal(kept.projectId, kept.id),
    });
    const own = await made(shown);
    return { view: await analyst().rehearsed.beside(own, against && (await made(against))), rehearsal: own.rehearsal };
  }, [shown.id, against?.id, app]);
  return (
    <div ref={box}>
      {error ? (
        <Message title="This rehearsal can’t be laid beside a prediction">{error}</Message>
      ) : found ? (
        <>
          <Results shown={shown} rehearsal={found.rehearsal} found={found.view} />
          <PairedChart found={found.view} width={width} />
        </>
      ) : (
        <p className="h-64 text-soft">Laying the prediction beside it …</p>
      )}
    </div>
  );
}
