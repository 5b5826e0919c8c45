'use client';

import { withScript } from '../../../core/amend/edit.ts';
import type { ClassicScript, ScriptChange, ScriptPlacement } from '../../../core/snapshot/document-types.ts';
import { analyst } from '../../../worker/client.ts';
import { NumberField, TextField } from '../../parts/field.tsx';
import { size, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { useAmendments } from '../../state/amendments.ts';
import { useAsked } from '../../state/asked.ts';
import { useWorkbench } from '../../state/workbench.ts';

/** Classic and third-party scripts: all placements of each side by side, predicted for the landing. */
export function ScriptsPage() {
  const { found: views, error } = useAsked(({ plan, route, conditions }) =>
    analyst().split.scripts(plan, route, conditions),
  );
  const route = useWorkbench((s) => s.route);
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  if (error) return <Message title="The scripts can’t be compared">{error}</Message>;
  if (!views) return <Message title="Comparing placements">Predicting the landing once for each.</Message>;
  if (views.length === 0)
    return (
      <Message title="No classic scripts">
        The documents have only module scripts, which take part in splitting. Third-party scripts are read from HTML
        files.
      </Message>
    );
  const place = (id: string, placement: ScriptPlacement, asBuilt: boolean) => {
    if (asBuilt) withdraw([`script ${id}`], `place ${id} as built`);
    else decide([{ kind: 'script', script: id, placement }]);
  };
  return (
    <div className="h-full overflow-y-auto px-4 pt-3 pb-6">
      <h1 className="text-[15px] font-semibold">Where scripts stand</h1>
      <p className="text-soft">
        each placement predicted for the landing on {route}; the order of classic scripts among each other can matter to
        them, which no prediction sees
      </p>
      {views.map(({ script, placed }) => {
        const best = Math.min(...placed.map((p) => p.interactive));
        return (
          <section key={script.id} className="mt-5 max-w-[860px]">
            <h2 className="font-semibold">{script.name}</h2>
            <p className="text-soft">
              {script.address || 'written into the document'},{' '}
              {script.bytes === null ? (
                <strong className="font-semibold text-worse">size unknown: times are at least what is shown</strong>
              ) : (
                size(script.bytes)
              )}
              , runs {time(script.evaluationMs)} on a fast device
              {script.evidence ? `, ${script.evidence.path}, line ${script.evidence.line}` : ''}
            </p>
            {script.address ? <ScriptFields script={script} /> : null}
            <table className="mt-1 w-full text-right">
              <thead className="text-soft">
                <tr>
                  <th className="py-1 pl-1.5 text-left font-normal">placement</th>
                  <th className="font-normal">first content</th>
                  <th className="font-normal">first screen complete</th>
                  <th className="font-normal">interactive</th>
                  <th className="pr-1.5 font-normal">it has run</th>
                </tr>
              </thead>
              <tbody>
                {placed.map((p) => (
                  <tr key={p.placement} className={`border-t border-line ${p.present ? 'bg-mark' : 'hover:bg-band'}`}>
                    <td className="py-[3px] pl-1.5 text-left">
                      <button
                        type="button"
                        aria-pressed={p.present}
                        className={p.present ? 'font-semibold' : 'hover:underline'}
                        onClick={() => place(script.id, p.placement, p.asBuilt)}
                      >
                        {p.placement}
                      </button>{' '}
                      {p.asBuilt ? <span className="text-soft">as built</span> : null}
                    </td>
                    <td>{time(p.firstContent)}</td>
                    <td>{time(p.firstScreenComplete)}</td>
                    <td className={p.interactive <= best + 0.5 ? 'font-semibold text-better' : ''}>
                      {time(p.interactive)}
                    </td>
                    <td className="pr-1.5">{time(p.ran)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        );
      })}
    </div>
  );
}

const MOST_KB = 100_000;
const MOST_MS = 60_000;

/** What a script weighs, takes and comes from, where that isn't known or was read wrongly; each a step that can be undone. */
function ScriptFields({ script }: { script: ClassicScript }) {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const say = (change: ScriptChange, what: string) =>
    amend(withScript(amendments, script.id, change), `${script.name}: ${what}`);
  return (
    <details className="mt-0.5" open={script.bytes === null}>
      <summary className="cursor-pointer text-soft">size, time and address</summary>
      <div className="mt-1 mb-2 flex flex-wrap items-end gap-x-5 gap-y-2">
        <NumberField
          label="Size, compressed"
          unit="kB"
          value={script.bytes === null ? null : script.bytes / 1000}
          most={MOST_KB}
          onTake={(kB) => say({ bytes: Math.round(kB * 1000) }, `${kB} kB`)}
        />
        <NumberField
          label="Runs for, on a fast device"
          unit="ms"
          value={script.evaluationMs}
          most={MOST_MS}
          onTake={(ms) => say({ evaluationMs: ms }, `runs ${ms} ms`)}
        />
        <NumberField
          label="Its server takes"
          unit="ms"
          value={script.serverMs}
          most={MOST_MS}
          onTake={(ms) => say({ serverMs: ms }, `${ms} ms at its server`)}
        />
        <div className="w-80">
          <TextField
            label="Address"
            value={script.address}
            check={(text) => (/^(https?:\/)?\//.test(text) ? null : 'Begin with / or https://.')}
            onTake={(address) => say({ address }, `comes from ${address}`)}
          />
        </div>
      </div>
    </details>
  );
}
