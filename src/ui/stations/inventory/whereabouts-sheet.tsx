'use client';

import type { PathStep } from '../../../core/inventory/whereabouts.ts';
import { goTo } from '../../state/stations.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { useWhereabouts } from './use-inventory.ts';

/** Where a module is, and which imports put it there, with files and lines. */
export function WhereaboutsSheet({ path }: { path: string | null }) {
  const found = useWhereabouts(path);
  const route = useWorkbench((s) => s.route);
  const choose = useWorkbench((s) => s.choose);
  if (path === null) {
    return (
      <p className="text-soft">
        Choose a module, or search for a phrase that you saw on the screen, to read in which chunks it travels and which
        imports put it there.
      </p>
    );
  }
  if (typeof found === 'string') return <p className="text-worse">{found}</p>;
  if (!found) return <p className="text-soft">Following the imports …</p>;
  const here = found.atStart.find((r) => r.pattern === route);
  const shown = here ?? found.atStart[0];
  return (
    <section>
      <h2 className="text-[15px] font-semibold break-all">{path.replace(/^.*\//, '')}</h2>
      <p className="mb-2 font-mono text-[11px] break-all text-soft">{path}</p>
      <p>
        in {found.chunks.length === 1 ? 'the chunk' : 'the chunks'}{' '}
        <span className="font-medium">{found.chunks.join(', ') || 'of no entry'}</span>
      </p>
      <p className="mt-1 text-soft">
        {found.atStart.length === 0
          ? 'In no route’s start.'
          : `At start of ${found.atStart.map((r) => r.pattern).join(', ')}.`}
        {found.later.length > 0 ? ` Later on ${found.later.join(', ')}.` : ''}
      </p>
      {shown ? (
        <>
          <h3 className="mt-4 font-semibold">Why it is at start of {shown.pattern}</h3>
          {shown.paths.map((steps, at) => (
            <details key={steps.map((s) => s.path).join(' ')} open={at === 0} className="mt-1.5">
              <summary className="cursor-pointer text-soft">
                {steps.length < 2 ? 'it is the entry' : `through ${steps[steps.length - 2].path.replace(/^.*\//, '')}`},{' '}
                {steps.length - 1} {steps.length === 2 ? 'import' : 'imports'}
              </summary>
              <Path steps={steps} />
            </details>
          ))}
          <button
            type="button"
            className="mt-4 underline"
            onClick={() => {
              choose({ route: shown.pattern });
              goTo('split');
            }}
          >
            open {shown.pattern} in Split
          </button>
        </>
      ) : null}
    </section>
  );
}

/** One import path as a line from the entry down to the module. */
function Path({ steps }: { steps: PathStep[] }) {
  return (
    <ol className="mt-1 ml-1.5 border-l border-line">
      {steps.map((s, i) => (
        <li key={s.path} className="relative py-0.5 pl-3.5">
          <span
            aria-hidden="true"
            className={`absolute top-[9px] -left-[4px] size-[7px] rounded-full border ${i === steps.length - 1 ? 'border-ink bg-ink' : s.deferred ? 'border-on-demand bg-sheet' : 'border-faint bg-sheet'}`}
          />
          <span className="break-all">{s.path}</span>
          {s.line === null ? null : (
            <span className="text-soft">
              , line {s.line}
              {s.deferred ? ', deferred' : ''}
            </span>
          )}
        </li>
      ))}
    </ol>
  );
}
