'use client';

import { useRef, useState } from 'react';
import { freePlanName, parsePlanFile } from '../../../core/formats/plan-file.ts';
import { BASELINE } from '../../../core/plan/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { saveFile } from '../../parts/save-file.ts';
import { toast } from '../../parts/toast.ts';
import { api } from '../../state/api.ts';
import { longWork } from '../../state/long-work.ts';
import { usePlan, useWorkbench } from '../../state/workbench.ts';
import { fileStem } from './text-head.tsx';

const BUTTON = 'rounded border border-line px-3 py-1.5 hover:border-ink';
const LARGEST = 20_000_000;

/** The project as a file, a plan by itself to send, and a plan that somebody sent. */
export function ProjectPage() {
  const project = useWorkbench((s) => s.project!);
  const plan = usePlan();
  const addPlan = useWorkbench((s) => s.addPlan);
  const input = useRef<HTMLInputElement>(null);
  const [texts, setTexts] = useState(true);
  const [trouble, setTrouble] = useState<string | null>(null);
  const attempt = async (work: () => Promise<void>) => {
    setTrouble(null);
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  const saveProject = () =>
    attempt(async () => {
      const blob = await api.projectFile(project.id, texts);
      saveFile(`${fileStem(project.name)}.yokeline.json`, 'application/json', blob);
    });
  const savePlan = () =>
    attempt(async () => {
      const text = await (await longWork()).handoff.planFile(plan);
      saveFile(`${fileStem(plan.name)}.plan.json`, 'application/json', text);
    });
  const bring = (file: File | undefined) =>
    attempt(async () => {
      if (!file) return;
      if (file.size > LARGEST) throw new Error(`${file.name} is larger than ${LARGEST / 1_000_000} MB.`);
      const { plan: sent, app } = parsePlanFile(await file.text(), file.name);
      const worker = await longWork();
      const { stale, same } = await worker.handoff.fits(sent, app);
      const name = freePlanName(sent.name, [BASELINE.name, ...project.plans.map((p) => p.name)]);
      await addPlan(name, sent.decisions);
      const lost =
        stale.length === 0
          ? 'Every decision applies.'
          : `${counted(stale.length, 'decision')} can’t be applied: ${stale.join('; ')}.`;
      toast(
        `“${name}” is here. ${same ? '' : `It was made for ${app.name} with ${counted(app.modules, 'module')}. `}${lost}`,
        {
          duration: 10_000,
        },
      );
    });
  return (
    <div className="min-h-0 overflow-y-auto">
      <section aria-label="Project file">
        <h2 className="text-[15px] font-semibold">Project file</h2>
        <p className="text-soft">
          All of it: the app as it was read, corrections, visits, limits and every plan. It opens here by dropping it on
          the page, and with the command line. Its form is described by{' '}
          <a className="underline" href="/schema/project.schema.json">
            a JSON Schema
          </a>
          .
        </p>
        <label className="my-2 flex items-center gap-1.5">
          <input type="checkbox" checked={texts} onChange={(event) => setTexts(event.target.checked)} />
          with the code, for source patches and exact sizes
        </label>
        <button type="button" onClick={() => void saveProject()} className={BUTTON}>
          Save the project
        </button>
      </section>
      <section aria-label="Plan by itself" className="mt-8">
        <h2 className="text-[15px] font-semibold">A plan by itself</h2>
        <p className="mb-2 text-soft">For a colleague who has read the same app: no code in it, only decisions.</p>
        <div className="flex gap-2">
          <button
            type="button"
            disabled={plan === BASELINE}
            onClick={() => void savePlan()}
            className={`${BUTTON} disabled:opacity-40`}
          >
            {plan === BASELINE ? 'Choose a plan at the top to send it' : `Save “${plan.name}”`}
          </button>
          <button type="button" onClick={() => input.current?.click()} className={BUTTON}>
            Bring a plan …
          </button>
        </div>
        <input
          ref={input}
          type="file"
          accept="application/json,.json"
          className="sr-only"
          aria-label="Plan file"
          onChange={(event) => {
            void bring(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        {trouble ? (
          <p className="mt-2 break-words text-worse" role="alert">
            {trouble}
          </p>
        ) : null}
      </section>
    </div>
  );
}
