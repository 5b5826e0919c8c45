'use client';

import type { PatchState, PatchStep, SourcePatch } from '../../../patch/types.ts';
import type { Asked } from '../../state/asked.ts';
import { fileStem, TextHead } from './text-head.tsx';

const WORDS: Record<PatchState, string> = {
  refused: 'Refused',
  'by hand': 'By hand',
  edited: 'In the patch',
  'nothing to do': 'Nothing to do',
};

/** How a line of the diff looks. */
function looks(line: string): string {
  if (line.startsWith('diff ')) return 'mt-2 font-semibold first:mt-0';
  if (/^(---|\+\+\+|@@)/.test(line)) return 'text-soft';
  return line.startsWith('+') ? 'bg-band text-better' : line.startsWith('-') ? 'text-worse' : '';
}

/** The unified diff of a plan, what is left to be done by hand with the code for it, and what became of each decision. */
export function SourcePatchPage({ patch: { found, error }, plan }: { patch: Asked<SourcePatch>; plan: string }) {
  if (error) return <p className="text-worse">{error}</p>;
  if (!found) return <p className="text-soft">Editing copies of the sources.</p>;
  const { diff, files, steps } = found;
  const file = `${fileStem(plan)}.patch`;
  const groups = (Object.keys(WORDS) as PatchState[])
    .map((state) => ({ state, steps: steps.filter((s) => s.state === state) }))
    .filter((g) => g.steps.length > 0);
  const added = files.reduce((sum, f) => sum + f.added, 0);
  const removed = files.reduce((sum, f) => sum + f.removed, 0);
  const use =
    diff === ''
      ? 'The edits of the source that this plan means.'
      : `${files.length} ${files.length === 1 ? 'file' : 'files'}, ${added} ${added === 1 ? 'line' : 'lines'} added, ${removed} removed. In the folder that was read: git apply ${file}`;
  return (
    <>
      <TextHead name="Source patch" use={use} text={diff} file={file} mime="text/x-diff" />
      <div className="min-h-0 flex-1 overflow-y-auto">
        {steps.length === 0 ? (
          <p className="text-soft">
            This plan has no edits of the source. Detach an import under Split, or take a finding.
          </p>
        ) : null}
        {groups.map((g) => (
          <section key={g.state} aria-label={WORDS[g.state]} className="mb-4">
            <h3 className="mb-1 font-semibold">
              {WORDS[g.state]} <span className="font-normal text-soft">{g.steps.length}</span>
            </h3>
            <ul>
              {g.steps.map((s) => (
                <Step key={`${s.decision} ${s.path} ${s.line} ${s.what}`} step={s} />
              ))}
            </ul>
          </section>
        ))}
        {diff === '' ? null : (
          <section aria-label="Text of the patch" className="overflow-x-auto rounded border border-line bg-sheet p-3">
            <pre className="w-max min-w-full font-mono text-[12px] leading-relaxed">
              {diff
                .trimEnd()
                .split('\n')
                .map((line, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: lines of a fixed text have no other name
                  <span key={at} className={`block ${looks(line)}`}>
                    {line || ' '}
                  </span>
                ))}
            </pre>
          </section>
        )}
      </div>
    </>
  );
}

function Step({ step: { words, path, line, what, recipe } }: { step: PatchStep }) {
  return (
    <li className="border-t border-line py-1">
      <span className="flex justify-between gap-4">
        <span>{words}</span>
        <span className="shrink-0 font-mono text-[11px] text-soft">
          {path}:{line}
        </span>
      </span>
      <span className="block text-soft">{what}</span>
      {recipe === '' ? null : (
        <details className="mt-1">
          <summary className="cursor-pointer">Code to write by hand</summary>
          <pre className="mt-1 overflow-x-auto rounded border border-line bg-sheet p-2 font-mono text-[12px]">
            {recipe}
          </pre>
        </details>
      )}
    </li>
  );
}
