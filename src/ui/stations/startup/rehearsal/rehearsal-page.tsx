'use client';

import { useEffect, useRef } from 'react';
import { BASELINE, type Plan } from '../../../../core/plan/types.ts';
import type { StoredRehearsal } from '../../../../store/rehearsals.ts';
import { analyst } from '../../../../worker/client.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { Message } from '../../../parts/message.tsx';
import { useWidth } from '../../../parts/use-width.ts';
import { loadRehearsals, useRehearsals } from '../../../state/rehearsals.ts';
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
    if (project) loadRehearsals(project).catch((error: Error) => useRehearsals.setState({ trouble: error.message }));
  }, [project]);
  const own = kept.filter((k) => k.rehearsal.pattern === route);
  const shown = own.find((k) => k.id === shownId) ?? own[0] ?? null;
  return (
    <div className="station-grid grid h-full min-h-0 grid-cols-[minmax(0,1fr)_300px]">
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        {shown ? <Shown key={shown.id} shown={shown} own={own} /> : <NothingYet route={route} />}
      </div>
      <aside aria-label="Rehearsing" className="min-h-0 overflow-y-auto border-l border-line px-4 py-4">
        <StartForm />
        <KeptList own={own} shown={shown?.id ?? null} />
      </aside>
    </div>
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

const planOf = ({ rehearsal, decisions }: StoredRehearsal): Plan =>
  decisions.length === 0 ? BASELINE : { name: rehearsal.plan, description: '', decisions };

/** The newest rehearsal without decisions that was made under the same circumstances: what a plan is laid against. */
function baselineFor(shown: StoredRehearsal, own: readonly StoredRehearsal[]): StoredRehearsal | null {
  if (shown.decisions.length === 0) return null;
  const circumstances = (k: StoredRehearsal) =>
    JSON.stringify([k.rehearsal.conditions, k.rehearsal.address, k.snapshotId]);
  return own.find((k) => k.decisions.length === 0 && circumstances(k) === circumstances(shown)) ?? null;
}

function Shown({ shown, own }: { shown: StoredRehearsal; own: readonly StoredRehearsal[] }) {
  const app = useWorkbench((s) => s.app);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 840);
  const against = baselineFor(shown, own);
  const { found, error } = useAnswer<RehearsedView>(
    () =>
      analyst().rehearsed.beside(
        { plan: planOf(shown), rehearsal: shown.rehearsal },
        against && { plan: planOf(against), rehearsal: against.rehearsal },
      ),
    [shown.id, against?.id, app],
  );
  return (
    <div ref={box}>
      {error ? (
        <Message title="This rehearsal can’t be laid beside a prediction">{error}</Message>
      ) : found ? (
        <>
          <Results shown={shown} found={found} />
          <PairedChart found={found} width={width} />
        </>
      ) : (
        <p className="h-64 text-soft">Laying the prediction beside it …</p>
      )}
    </div>
  );
}
