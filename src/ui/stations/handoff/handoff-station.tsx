'use client';

import { useState } from 'react';
import type { FileMap } from '../../../core/handoff/addresses.ts';
import type { Handoff } from '../../../core/handoff/handoff.ts';
import type { Artefact } from '../../../core/handoff/types.ts';
import type { LimitState } from '../../../core/limits/types.ts';
import type { SourcePatch } from '../../../patch/types.ts';
import { analyst } from '../../../worker/client.ts';
import { Message } from '../../parts/message.tsx';
import { useAsked } from '../../state/asked.ts';
import { useHandoffPage } from '../../state/handoff-page.ts';
import { useLimitStates } from '../../state/limits.ts';
import { longWork } from '../../state/long-work.ts';
import { storedPlan, useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';
import { FileMapField } from './file-map-field.tsx';
import { HarPage } from './har-page.tsx';
import { LimitsPage } from './limits-page.tsx';
import { NextBuildPage, useNextBuild } from './next-build-page.tsx';
import { ProjectPage } from './project-page.tsx';
import { useRehearsedLandings } from './rehearsed-landings.ts';
import { SourcePatchPage } from './source-patch-page.tsx';
import { fileStem, TextHead } from './text-head.tsx';
import { TextView } from './text-view.tsx';
import { usePatch } from './use-patch.ts';

const ITEM = 'flex w-full items-baseline justify-between gap-3 py-1 pl-1 text-left';

/** In the order in which they are put to use. */
const GROUPS = [
  { words: 'into the code', kinds: ['patch', 'triggers', 'hint-script'] },
  { words: 'onto the server', kinds: ['markup', 'headers', 'early-hints', 'speculation-rules', 'manifest', 'deploy'] },
  { words: 'for the review', kinds: ['report', 'csv', 'har', 'project'] },
  { words: 'to keep it', kinds: ['build', 'limits'] },
];

/** What a plan hands over: how each decision reaches production, and the texts to copy or save. */
export function HandoffStation() {
  const [files, setFiles] = useState<{ name: string; map: FileMap } | null>(null);
  const { found, error } = useAsked(
    ({ plan }) => analyst().handoff.handoff(plan, files?.map ?? null),
    files?.name ?? '',
    [],
  );
  const chosen = useHandoffPage((s) => s.page);
  const setChosen = (page: string) => useHandoffPage.setState({ page });
  const limits = useLimitStates().states;
  const build = useNextBuild((s) => s.build);
  const patch = usePatch();
  const plan = usePlan();
  const conditions = useConditions();
  const rehearsed = useRehearsedLandings();
  // Every landing is predicted for it: the rest needn't wait, and a report of what was chosen before isn't shown.
  const reviewed = useAsked(
    async (now) => (await longWork()).handoff.review(now.plan, now.conditions, rehearsed),
    JSON.stringify([plan.name, plan.description, plan.decisions, conditions, rehearsed]),
  );
  const named = useWorkbench((s) => storedPlan(s));
  if (error) return <Message title="This plan can’t be handed over">{error}</Message>;
  if (!found) return <Message title="Writing what the plan hands over">Chunks, addresses and links.</Message>;
  const artefacts = [...found.artefacts, ...(reviewed.found ?? [])];
  const artefact = artefacts.find((a) => a.kind === chosen);
  const own: Record<string, { name: string; note: string }> = {
    patch: { name: 'Source patch', note: patch.found ? patchNote(patch.found) : '…' },
    // Until it is there.
    report: { name: 'Report', note: '…' },
    csv: { name: 'Figures', note: '…' },
    har: { name: 'Predicted landing', note: 'HAR' },
    project: { name: 'Project and plan', note: 'files' },
    build: { name: 'Next build', note: build === null ? 'not read' : build.reconciled.ok ? 'delivered' : 'not all' },
    limits: { name: 'Limits', note: limitsNote(limits) },
  };
  const count = found.ways.reduce((sum, w) => sum + w.decisions.length, 0);
  return (
    <div className="station-grid grid h-full min-h-0 grid-cols-[270px_minmax(0,1fr)]">
      <nav aria-label="What is handed over" className="min-h-0 overflow-y-auto border-r border-line px-4 py-4">
        <h1 className="mb-2 text-[15px] font-semibold">Handoff of {plan.name}</h1>
        <Item name="Decisions" note={String(count)} chosen={chosen === 'ways'} onChoose={() => setChosen('ways')} />
        {GROUPS.map(({ words, kinds }) => (
          <div key={words}>
            <h2 className="mt-2.5 border-t border-line pt-1.5 pb-0.5 text-[11px] text-soft">{words}</h2>
            {kinds.map((kind) => {
              const made = artefacts.find((a) => a.kind === kind);
              const { name, note } = made ? { name: made.name, note: noteOf(made) } : own[kind];
              return (
                <Item key={kind} name={name} note={note} chosen={kind === chosen} onChoose={() => setChosen(kind)} />
              );
            })}
          </div>
        ))}
        <FileMapField standIns={found.standIns.length} name={files?.name ?? null} onTake={setFiles} />
      </nav>
      <section aria-label="What is chosen of it" className="flex min-h-0 min-w-0 flex-col px-4 py-4">
        {chosen === 'har' ? (
          <HarPage plan={plan.name} />
        ) : chosen === 'project' ? (
          <ProjectPage />
        ) : chosen === 'build' ? (
          <NextBuildPage onFiles={(folder, map) => setFiles({ name: folder, map })} />
        ) : chosen === 'limits' ? (
          <LimitsPage />
        ) : chosen === 'patch' ? (
          <SourcePatchPage patch={patch} plan={plan.name} />
        ) : artefact ? (
          <Text artefact={artefact} plan={plan.name} />
        ) : chosen === 'report' || chosen === 'csv' ? (
          <Message title={reviewed.error ? 'The landings can’t be predicted' : 'Predicting every landing'}>
            {reviewed.error ?? 'As built and with the plan, for the report and the figures.'}
          </Message>
        ) : (
          <Ways ways={found.ways} named={named !== null} />
        )}
      </section>
    </div>
  );
}

function limitsNote(states: readonly LimitState[]): string {
  const broken = states.filter((s) => s.state !== 'kept').length;
  if (states.length === 0) return 'none set';
  return broken === 0 ? `${states.length} kept` : `${broken} exceeded`;
}

/** Files that the patch edits, or that all is left to be done by hand. */
function patchNote({ files, steps }: SourcePatch): string {
  if (files.length > 0) return `${files.length} ${files.length === 1 ? 'file' : 'files'}`;
  return steps.some((s) => s.state === 'by hand' || s.state === 'refused') ? 'by hand' : 'nothing';
}

function noteOf({ text }: Artefact): string {
  return text === '' ? 'nothing' : linesOf(text);
}

function linesOf(text: string): string {
  const lines = text.trimEnd().split('\n').length;
  return `${lines} ${lines === 1 ? 'line' : 'lines'}`;
}

function Item({ name, note, chosen, onChoose }: { name: string; note: string; chosen: boolean; onChoose: () => void }) {
  return (
    <button
      type="button"
      aria-current={chosen ? 'true' : undefined}
      onClick={onChoose}
      className={`${ITEM} ${chosen ? 'bg-mark font-semibold' : 'hover:bg-band'}`}
    >
      {name}
      <span className="pr-1 font-normal text-soft">{note}</span>
    </button>
  );
}

/** One text, to be copied or saved. */
function Text({ artefact: { name, use, text, file, mime }, plan }: { artefact: Artefact; plan: string }) {
  return (
    <>
      <TextHead name={name} use={use} text={text} file={`${fileStem(plan)}-${file}`} mime={mime} />
      {text === '' ? (
        <p className="text-soft">This plan has nothing of the kind. Hints are chosen at the Advice station.</p>
      ) : (
        <TextView name={name} text={text} />
      )}
    </>
  );
}

const BY = {
  'source edit': 'In the source',
  'server or markup': 'On the server or in the markup',
  'build setting': 'In the settings of the build',
  'nothing to ship': '',
};

/** The decisions by how each reaches production. */
function Ways({ ways, named }: { ways: Handoff['ways']; named: boolean }) {
  if (ways.length === 0)
    return (
      <Message title="Nothing to hand over yet">
        {named
          ? 'This plan has no decisions. Take a finding at the Advice station, or detach an import under Split.'
          : 'The baseline is the app as built. Choose a plan at the top.'}
      </Message>
    );
  return (
    <div className="min-h-0 overflow-y-auto">
      <h2 className="text-[15px] font-semibold">How each decision reaches production</h2>
      <p className="mb-2 text-soft">
        Edits in the source are named with their lines; links, headers, rules and scripts are written out on the left.
      </p>
      {ways.map(({ by, decisions }) => (
        <section key={by} aria-label={BY[by]}>
          <h3 className="mt-4 mb-1 font-semibold">{BY[by]}</h3>
          <ul>
            {decisions.map((d) => (
              <li key={d.words} className="border-t border-line py-1">
                {d.words}
                {d.lines.length > 0 ? (
                  <span className="block font-mono text-[11px] break-all text-soft">{d.lines.join('  ')}</span>
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
