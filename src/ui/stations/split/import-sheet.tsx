'use client';

import type { ImportRow } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { shortName } from '../../../core/text/short-name.ts';
import { percent, size, time } from '../../parts/format.ts';
import { useAsked } from '../../state/asked.ts';
import { longWork } from '../../state/long-work.ts';
import { useConditions, useWorkbench } from '../../state/workbench.ts';
import { BeforeAfter } from './before-after.tsx';
import { HoldSection, UNTIL } from './hold-section.tsx';
import { toggleImport } from './toggles.ts';
import { useHold, usePreview, useWaits } from './use-outline.ts';

/** A joined import: what would leave the start if it were detached, what stays, and what that does to the start. */
export function ImportSheet({ row, within }: { row: ImportRow; within: string | null }) {
  const decision: Decision = { kind: 'detach', import: row.key };
  const first = row.part?.place === 'first screen';
  return (
    <>
      <p className="text-[11px] break-all text-soft">
        import in {row.from}, line {row.line}
      </p>
      <h2 className="text-[15px] font-semibold break-words">{row.name}</h2>
      <p className="mb-3 font-mono text-[11px] break-all text-soft">{row.to}</p>
      <button
        type="button"
        onClick={() => toggleImport({ kind: 'import', id: row.key, row })}
        className="rounded bg-ink px-3.5 py-1.5 font-medium text-on-ink"
      >
        Detach it <kbd className="ml-1 font-mono text-xs opacity-70">d</kbd>
      </button>
      {row.sync ? (
        <p className="mt-3 text-worse">
          Detaching alone breaks it: {row.sync.reason} ({row.from}, line {row.sync.line}). Move that use into a function
          first, or detach an import further up.
        </p>
      ) : null}
      <h3 className="mt-5 mb-1 font-semibold">If you detach it</h3>
      <dl className="grid grid-cols-[1fr_auto] gap-y-1">
        <dt>leaves {within ? `what ${shortName(within)} brings` : 'the start'}</dt>
        <dd className={`text-right font-semibold ${row.carried.compressed > 0 ? 'text-better' : ''}`}>
          {size(row.carried.compressed)}
        </dd>
        <dt className="text-soft">of it {row.name} itself</dt>
        <dd className="text-right text-soft">{size(Math.min(row.own.compressed, row.carried.compressed))}</dd>
        <dt className="text-soft">minified</dt>
        <dd className="text-right text-soft">{size(row.carried.minified)}</dd>
      </dl>
      {first ? (
        <p className="mt-3 text-worse">
          It belongs to the first screen: deferring it adds a hop before that is complete.
        </p>
      ) : null}
      {within ? (
        <WaitSection decision={decision} row={row} within={within} />
      ) : (
        <StartSection decision={decision} row={row} later={!first} />
      )}
      {row.part && !row.part.interactive ? <NoScript row={row} /> : null}
    </>
  );
}

/** What stays and who keeps it, and the start before and after. */
function StartSection({ decision, row, later }: { decision: Decision; row: ImportRow; later: boolean }) {
  const preview = usePreview([decision]);
  const found = useHold([decision], row.to);
  return (
    <>
      <PriceSection row={row} />
      <HoldSection found={found} name={row.name} later={later} />
      <BeforeAfter preview={preview} />
    </>
  );
}

/** What the line costs in the trade's own currency, and who pays. */
function PriceSection({ row }: { row: ImportRow }) {
  const route = useWorkbench((s) => s.route);
  const { link } = useConditions();
  const { found, error } = useAsked(
    async (now) => (await longWork()).split.blame(now.plan, row.key, now.conditions),
    row.key,
  );
  if (error) return <p className="mt-3 text-worse">{error}</p>;
  if (!found) return <p className="mt-3 text-soft">Working out what it costs …</p>;
  const here = found.effect.routes.find((r) => r.pattern === route);
  if (found.paidBy === 0) return <p className="mt-3 text-soft">Nobody is interactive later because of it.</p>;
  return (
    <p className="mt-3">
      This line costs{' '}
      <strong className="font-semibold">{here && here.interactive < 0 ? time(-here.interactive) : 'nothing'}</strong>{' '}
      until interactive on {route} under {link.name}; {percent(found.paidBy)} of all landings pay for it.
    </p>
  );
}

/** For an import of a split point: who asks for that waits less; who then needs this as well waits again. */
function WaitSection({ decision, row, within }: { decision: Decision; row: ImportRow; within: string }) {
  const { found, error } = useWaits([decision], within);
  if (error) return <p className="mt-4 text-worse">{error}</p>;
  if (!found) return <p className="mt-4 text-soft">Working out the wait …</p>;
  if (found.before === null || found.after === null)
    return <p className="mt-4 text-soft">Nobody waits for {shortName(within)}: the landing fetches it by itself.</p>;
  return (
    <p className="mt-4">
      The wait for {shortName(within)} goes from {time(found.before.wait)} to{' '}
      <strong className={`font-semibold ${found.after.wait < found.before.wait ? 'text-better' : ''}`}>
        {time(found.after.wait)}
      </strong>{' '}
      {UNTIL[found.after.until]}; {row.name} comes after that.
    </p>
  );
}

/** A part that doesn't answer needs no script where the server draws it: what that would save, and the decision. */
function NoScript({ row }: { row: ImportRow }) {
  const decide = useWorkbench((s) => s.decide);
  const served = useWorkbench((s) => s.app?.routes.find((r) => r.pattern === s.route)?.rendering === 'server');
  const decision: Decision = { kind: 'no script', module: row.to };
  const preview = usePreview(served ? [decision] : null);
  if (!served) return null;
  return (
    <section className="mt-5">
      <h3 className="font-semibold">Without its script</h3>
      <p className="text-soft">
        The server draws it and nobody can act on it. Its script needn’t travel; what answers inside it becomes a split
        point.
      </p>
      {preview && typeof preview !== 'string' ? (
        <p className="mt-1">
          start {size(preview.before.readout.startBytes)} → {size(preview.after.readout.startBytes)},{' '}
          <span className="whitespace-nowrap">
            interactive {time(preview.before.milestones.interactive)} → {time(preview.after.milestones.interactive)}
          </span>
        </p>
      ) : null}
      <button
        type="button"
        className="mt-2 rounded border border-line px-2.5 py-1 hover:border-ink"
        onClick={() => decide([decision])}
      >
        Ship no script for it
      </button>
    </section>
  );
}
