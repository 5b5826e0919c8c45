'use client';

import type { SplitWait } from '../../../core/explain/wait.ts';
import { shortName } from '../../../core/text/short-name.ts';
import type { Explained } from '../../../worker/views.ts';
import { Few } from '../../parts/few.tsx';
import { size, time } from '../../parts/format.ts';
import { useWorkbench } from '../../state/workbench.ts';

/** What a wait is the wait for. */
export const UNTIL: Record<SplitWait['until'], string> = {
  shown: 'until it shows',
  answering: 'until it answers',
  run: 'until its code has run',
};

const MOST_BY = 3;
const MOST_MOVED = 4;
const WORTH_TELLING = 0.02;

/** What stays in the start and who keeps it there, the fewest detachments that free it, and who pays later. */
export function HoldSection({
  found,
  name,
  later,
}: {
  found: Explained | string | null;
  name: string;
  /** Whether the piece is made to come later, so that it is worth freeing what it needs. */
  later: boolean;
}) {
  const decide = useWorkbench((s) => s.decide);
  if (typeof found === 'string') return <p className="mt-4 text-worse">{found}</p>;
  if (!found) return <p className="mt-4 text-soft">Looking who else holds it …</p>;
  const { hold, wait, waitRange, over } = found;
  // Small things that everybody shares are no reason why little leaves.
  const counts = (h: (typeof hold.holds)[number]) =>
    h === hold.holds[0] || h.weight.minified > hold.stays.minified * WORTH_TELLING;
  const gains = hold.moved.filter((m) => m.bytes > 0);
  return (
    <>
      {over && over.routes.length > 1 ? (
        <p className="mt-3">
          It leaves the starts of {over.routes.length} routes: {size(over.expected.compressed)}{' '}
          <span className="text-soft">less per landing, weighted by the routes’ shares</span>
        </p>
      ) : null}
      {wait === null ? null : (
        <p className="mt-4">
          Used later, without hovering or focusing first, it keeps the visitor waiting for{' '}
          <strong className="font-semibold">{time(wait.wait)}</strong> {UNTIL[wait.until]}, the first time
          {waitRange && time(waitRange[0]) !== time(waitRange[1]) ? (
            <span className="text-soft">
              {' '}
              ({time(waitRange[0])} to {time(waitRange[1])}, as script may cost)
            </span>
          ) : null}
          {wait.complete > wait.wait + 0.5 ? `, and ${time(wait.complete)} until all of it is there` : ''}.
        </p>
      )}
      {hold.stays.count === 0 ? null : (
        <section className="mt-4">
          <h3 className="font-semibold">{size(hold.stays.compressed)} of what it needs stay in the start</h3>
          <ul>
            {hold.holds.filter(counts).map((h) => (
              <li key={h.module} className="mt-1">
                <span className="font-medium" title={h.module}>
                  {shortName(h.module)}
                </span>{' '}
                <span className="text-soft">
                  ({size(h.weight.compressed)} with what it carries), kept by{' '}
                  <Few rows={h.by} most={MOST_BY} as="span">
                    {(b, i) => (
                      <span key={b.key} className="break-words">
                        {i > 0 ? ', ' : ''}
                        {b.path}, line {b.line}
                      </span>
                    )}
                  </Few>
                </span>
              </li>
            ))}
          </ul>
          {!later ? null : hold.cut ? (
            <p className="mt-2">
              Detaching {hold.cut.imports.length === 1 ? 'one import' : `${hold.cut.imports.length} imports`} more frees{' '}
              {shortName(hold.cut.frees)}: <span className="font-semibold text-better">{size(hold.cut.gain)}</span>
              <span className="block text-[11px] break-words text-soft">{hold.cut.imports.join(', ')}</span>
              <button
                type="button"
                className="mt-1 rounded border border-line px-2.5 py-1 hover:border-ink"
                onClick={() => decide(hold.cut!.decisions, `free ${shortName(hold.cut!.frees)} from ${name}’s start`)}
              >
                Free it
              </button>
            </p>
          ) : (
            <p className="mt-2 text-soft">The first screen or the shell needs it: no detachment frees it.</p>
          )}
        </section>
      )}
      {gains.length > 1 ? (
        <section className="mt-4">
          <h3 className="font-semibold">What loads it instead (minified)</h3>
          <ul className="text-soft">
            <Few rows={gains} most={MOST_MOVED} as="li">
              {(m) => (
                <li key={m.root} className="flex justify-between gap-3">
                  <span className="truncate" title={m.root}>
                    {shortName(m.root.replace(/^[^:]*:/, ''))}
                  </span>
                  <span className="shrink-0">+{size(m.bytes)}</span>
                </li>
              )}
            </Few>
          </ul>
        </section>
      ) : null}
    </>
  );
}
