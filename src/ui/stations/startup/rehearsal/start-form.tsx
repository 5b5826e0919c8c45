'use client';

import { useState } from 'react';
import { BASELINE } from '../../../../core/plan/types.ts';
import { actsAfter, doableActs, type NamedAct } from '../../../../core/rehearsals/acts.ts';
import { NumberField, PickField, TextField } from '../../../parts/field.tsx';
import { rehearse, stopRehearsing, useRehearsals } from '../../../state/rehearsals.ts';
import { useConditions, usePlan, useWorkbench } from '../../../state/workbench.ts';

const MOST_RUNS = 50;

/** What is rehearsed and how, with the leave to run the app’s code. */
export function StartForm() {
  const { wishes, mayRun, running, trouble } = useRehearsals();
  const [allowed, setAllowed] = useState(false);
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const folder = useWorkbench((s) => s.project?.folder ?? null);
  const { link, device } = useConditions();
  const wish = (change: Partial<typeof wishes>) => useRehearsals.setState({ wishes: { ...wishes, ...change } });
  const both = wishes.withBaseline && plan.decisions.length > 0;
  if (folder === null)
    return (
      <p className="text-soft">
        This project came as a file: its sources aren’t on this machine, so that nothing can be run. Read the app’s
        folder as a project of its own.
      </p>
    );
  return (
    <section aria-label="Rehearse">
      <h2 className="font-semibold">Rehearse {route}</h2>
      <p className="mb-2 text-soft">
        {plan.name} over {link.name}, {device.name}, as chosen above.
      </p>
      <div className="grid gap-2">
        <NumberField
          label="Each is run"
          unit="times"
          least={1}
          most={MOST_RUNS}
          value={wishes.runs}
          onTake={(runs) => wish({ runs: Math.round(runs) })}
        />
        <TextField
          label="Address on the route"
          mono
          placeholder={route}
          value={wishes.address}
          check={(text) => (text === '' || /^\/\S*$/.test(text) ? null : 'Begin with / and leave out spaces.')}
          onTake={(address) => wish({ address })}
        />
        <Acts route={route} />
        <DataField />
        {plan.decisions.length > 0 ? (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={wishes.withBaseline}
              onChange={(e) => wish({ withBaseline: e.target.checked })}
            />
            the baseline as well, to tell the gain
          </label>
        ) : null}
        {mayRun ? null : (
          <label className="flex items-start gap-1.5">
            <input type="checkbox" className="mt-1" checked={allowed} onChange={(e) => setAllowed(e.target.checked)} />
            <span>Run this app’s own code on this machine, in a browser without a way to any network.</span>
          </label>
        )}
      </div>
      {running ? (
        <Running />
      ) : (
        <button
          type="button"
          disabled={!mayRun && !allowed}
          onClick={() => void rehearse(both ? [BASELINE, plan] : [plan], allowed)}
          className="mt-3 rounded bg-ink px-3 py-1 font-medium text-on-ink disabled:opacity-40"
        >
          Rehearse
        </button>
      )}
      {trouble ? (
        <p role="alert" className="mt-2 text-worse">
          {trouble}
        </p>
      ) : null}
    </section>
  );
}

function DataField() {
  const wishes = useRehearsals((s) => s.wishes);
  return (
    <>
      <TextField
        label="Answers to calls for data come from"
        placeholder="made up, as types in the code say"
        value={wishes.data}
        onTake={(data) => useRehearsals.setState({ wishes: { ...wishes, data } })}
      />
      <p className="-mt-1 text-[11px] text-soft">
        A folder of files by address, a recording (.har), or a server such as http://localhost:4000. Without one,
        answers that code states a type of are made up; others are empty lists.
      </p>
    </>
  );
}

/** So many acts are done at most. */
const MOST_ACTS = 20;

/** What is done once the page has come to rest: one act after the other, each from where the one before it led. */
function Acts({ route }: { route: string }) {
  const app = useWorkbench((s) => s.app);
  const wishes = useRehearsals((s) => s.wishes);
  if (!app) return null;
  const done = doableActs(app, route, wishes.acts);
  const names = done.map((a) => a.name);
  const take = (at: number, name: string) => {
    const acts = [...names.slice(0, at), ...(name === '' ? [] : [name]), ...names.slice(at + 1)];
    useRehearsals.setState({ wishes: { ...wishes, acts: doableActs(app, route, acts).map((a) => a.name) } });
  };
  return Array.from({ length: Math.min(done.length + 1, MOST_ACTS) }, (_, at) => {
    const possible = actsAfter(app, route, done.slice(0, at));
    if (possible.length === 0) return null;
    return (
      <PickField
        // biome-ignore lint/suspicious/noArrayIndexKey: acts have no identity but their place
        key={at}
        label={at === 0 ? 'Once it has come to rest' : 'Then, at rest again'}
        value={names[at] ?? ''}
        options={[
          { value: '', label: at === 0 ? 'nothing is done' : 'nothing more' },
          ...possible.map((act) => ({ value: act.name, label: actWords(act) })),
        ]}
        onTake={(name) => take(at, name)}
      />
    );
  });
}

function actWords(act: NamedAct): string {
  switch (act.does) {
    case 'press':
      return `${act.words}: ${act.part.name}`;
    case 'scroll':
      return `scroll to ${act.part.name}`;
    case 'move':
      return `move to ${act.name}`;
  }
}

function Running() {
  const running = useRehearsals((s) => s.running);
  const project = useWorkbench((s) => s.project?.id);
  if (!running) return null;
  return (
    <div className="mt-3" aria-live="polite">
      <progress className="w-full" max={running.of} value={running.done} aria-label="Runs done" />
      <p className="flex justify-between gap-2">
        <span className="text-soft">
          {running.projectId === project ? '' : 'Another project, '}
          {running.plan}: {running.stopping ? 'ending after this run' : running.doing}
        </span>
        <button type="button" className="underline" disabled={running.stopping} onClick={() => void stopRehearsing()}>
          stop
        </button>
      </p>
    </div>
  );
}
