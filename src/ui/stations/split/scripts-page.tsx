'use client';

import { toast } from 'sonner';
import type { ScriptPlacement } from '../../../core/snapshot/types.ts';
import { analyst } from '../../../worker/client.ts';
import { size, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { useAsked } from '../../state/asked.ts';
import { storedPlan, useWorkbench } from '../../state/workbench.ts';

/** Classic and third-party scripts: all placements of each side by side, predicted for the landing. */
export function ScriptsPage() {
  const { found: views, error } = useAsked(({ plan, route, conditions }) => analyst().scripts(plan, route, conditions));
  const plan = useWorkbench((s) => storedPlan(s));
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
    if (!plan) toast('The baseline stays as built. Choose or make a plan first.');
    else if (asBuilt) withdraw([`script ${id}`], `place ${id} as built`);
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
              {script.address || 'written into the document'}, {size(script.bytes)}, runs {time(script.evaluationMs)} on
              a fast device
              {script.evidence ? `, ${script.evidence.path}, line ${script.evidence.line}` : ''}
            </p>
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
