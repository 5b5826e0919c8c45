'use client';

import { useState } from 'react';
import { create } from 'zustand';
import type { FileMap } from '../../../core/handoff/addresses.ts';
import type { Plan } from '../../../core/plan/types.ts';
import { reconcileMarkdown } from '../../../core/reconcile/reconcile-text.ts';
import type { Delivered, Reconciliation, RouteDelivered } from '../../../core/reconcile/types.ts';
import type { ComparedBuild } from '../../../server/reading-jobs.ts';
import { size } from '../../parts/format.ts';
import { api } from '../../state/api.ts';
import { follow, progressWords, troubleWords } from '../../state/reading.ts';
import { usePlan, useWorkbench } from '../../state/workbench.ts';
import { fileStem, TextHead } from './text-head.tsx';

interface NextBuild {
  build: ComparedBuild | null;
  /** The plan as it was then, and the project. */
  plan: Plan | null;
  project: string | null;
  folder: string;
}

/** The build that was read last; it stays while other stations are looked at. */
export const useNextBuild = create<NextBuild>()(() => ({ build: null, plan: null, project: null, folder: '' }));

/** Reads the next production build and lays what it delivered beside what the plan promised. */
export function NextBuildPage({ onFiles }: { onFiles: (folder: string, files: FileMap) => void }) {
  const { build, plan: of, project: ofProject, folder } = useNextBuild();
  const plan = usePlan();
  const project = useWorkbench((s) => s.project!.id);
  const [words, setWords] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = async () => {
    setTrouble(null);
    setWords('Starting');
    try {
      const end = await follow(api.readBuild(project, folder.trim(), plan.name, plan.decisions), (state) =>
        setWords(progressWords(state)),
      );
      if (end.build) {
        useNextBuild.setState({ build: end.build, plan, project });
        onFiles(folder.trim(), end.build.files);
      } else setTrouble(troubleWords(end) ?? 'Stopped.');
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setWords(null);
  };
  const shown = build && ofProject === project ? build.reconciled : null;
  return (
    <>
      <TextHead
        name="Next build"
        use="Once the plan is in the code: what the production build delivered, beside what was promised."
        text={shown ? reconcileMarkdown(shown) : ''}
        file={`${fileStem(plan.name)}-delivered.md`}
        mime="text/markdown"
      />
      <form
        className="mb-3 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void read();
        }}
      >
        <label className="min-w-0 flex-1 text-soft">
          Folder on this machine that the build wrote, with its source maps
          <input
            value={folder}
            onChange={(event) => useNextBuild.setState({ folder: event.target.value })}
            placeholder="/home/me/app/dist"
            className="mt-0.5 w-full rounded border border-line bg-sheet px-2 py-1.5 text-ink"
          />
        </label>
        <button
          type="submit"
          disabled={folder.trim() === '' || words !== null}
          className="rounded border border-line px-3 py-1.5 hover:border-ink disabled:opacity-40"
        >
          {words ?? 'Read the build'}
        </button>
      </form>
      {trouble ? (
        <p className="mb-2 text-worse" role="alert">
          {trouble}
        </p>
      ) : null}
      {shown && (of?.name !== plan.name || of.decisions !== plan.decisions) ? (
        <p className="mb-2 text-soft">
          Laid beside {of?.name} as it was then. Read the build once more for the plan as it is now.
        </p>
      ) : null}
      {shown ? <Found found={shown} /> : null}
    </>
  );
}

function Found({ found: { routes, decisions, hints, unknown } }: { found: Reconciliation }) {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <h3 className="mb-1 font-semibold">Starts</h3>
      <table className="w-full">
        <thead className="text-[11px] text-soft">
          <tr>
            <th className="py-1 text-left font-normal">landing on</th>
            <th className="py-1 text-right font-normal">promised</th>
            <th className="py-1 text-right font-normal">delivered</th>
            <th className="py-1 pl-4 text-left font-normal">in it, though the plan keeps it out</th>
          </tr>
        </thead>
        <tbody>
          {routes.map((r) => (
            <Start key={r.pattern} route={r} />
          ))}
        </tbody>
      </table>
      <States title="Decisions" rows={decisions.map((d) => ({ key: String(d.decision), ...d, where: '' }))} />
      <States
        title="Hints"
        rows={hints.map((h) => ({ key: `${h.rel} ${h.address} ${h.words}`, ...h, where: h.routes.join(', ') }))}
      />
      {unknown.length > 0 ? (
        <p className="mt-3 text-soft" title={unknown.join('\n')}>
          {unknown.length} modules of the starts are in no file of the build: left out by it, or named otherwise in its
          maps.
        </p>
      ) : null}
    </div>
  );
}

function Start({ route: { pattern, promised, delivered, extra, more } }: { route: RouteDelivered }) {
  const cell = 'border-t border-line py-1';
  return (
    <tr className="align-top hover:bg-band">
      <th scope="row" className={`${cell} text-left font-normal`}>
        {pattern}
      </th>
      <td className={`${cell} text-right whitespace-nowrap`}>
        {size(promised.bytes)} <span className="text-soft">in {promised.files}</span>
      </td>
      <td className={`${cell} text-right whitespace-nowrap`}>
        {delivered ? (
          <>
            {size(delivered.bytes)} <span className="text-soft">in {delivered.files.length}</span>
          </>
        ) : (
          <span className="text-worse">its page is in no file</span>
        )}
      </td>
      <td className={`${cell} pl-4`}>
        {extra.length === 0 ? (
          <span className="text-soft">nothing</span>
        ) : (
          extra.map((e) => (
            <span key={`${e.path} ${e.file}`} className="block text-worse" title={`in ${e.file}`}>
              ▴ {e.path} <span className="text-soft">{size(e.bytes)} minified</span>
            </span>
          ))
        )}
        {more > 0 ? <span className="text-soft">and {more} more</span> : null}
      </td>
    </tr>
  );
}

const MARK: Record<Delivered, { sign: string; look: string }> = {
  delivered: { sign: '✓', look: 'text-better' },
  'not delivered': { sign: '✕', look: 'text-worse' },
  untold: { sign: '?', look: 'text-soft' },
};

function States({
  title,
  rows,
}: {
  title: string;
  rows: { key: string; words: string; where: string; state: Delivered; why: string }[];
}) {
  if (rows.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3 className="mt-4 mb-1 font-semibold">{title}</h3>
      <ul>
        {rows.map((r) => (
          <li key={r.key} className="flex gap-2 border-t border-line py-1">
            <span className={`w-3 shrink-0 ${MARK[r.state].look}`} title={r.state}>
              {MARK[r.state].sign}
              <span className="sr-only"> {r.state}</span>
            </span>
            <span className="min-w-0 flex-1">
              {r.words}
              {r.where ? <span className="text-soft"> on {r.where}</span> : null}
              <span className="block text-soft">{r.why}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
