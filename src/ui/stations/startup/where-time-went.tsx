import { basisWords, type ThreadBasis } from '../../../core/metrics/basis.ts';
import { type SpentTime, whereTheTimeWent } from '../../../core/metrics/critical-chain.ts';
import type { LandingView } from '../../../worker/views.ts';
import { CHAIN_LOOKS } from '../../parts/chain-looks.ts';
import { time } from '../../parts/format.ts';
import { Term } from '../../parts/term.tsx';

/** The critical chain to interactive as sums that add up to it. */
export function WhereTimeWent({ view }: { view: LandingView }) {
  const sums = whereTheTimeWent(view.chain).filter((s) => s.ms >= 0.5);
  const total = view.milestones.interactive;
  if (!Number.isFinite(total)) return null;
  return (
    <section>
      <h2 className="font-semibold">Where the time went</h2>
      <p className="mb-2 text-soft">to interactive, along its deciding chain</p>
      <div className="flex h-4 overflow-hidden rounded-sm" aria-hidden="true">
        {sums.map((s) => (
          <span key={s.kind} style={{ width: `${(s.ms / total) * 100}%`, background: CHAIN_LOOKS[s.kind].colour }} />
        ))}
      </div>
      <table className="mt-2 w-full">
        <tbody>
          {sums.map((s) => (
            <Line key={s.kind} {...s} />
          ))}
          <tr className="border-t border-line font-semibold">
            <td className="pt-1.5">sum</td>
            <td className="pt-1.5 text-right whitespace-nowrap">{Math.round(total)} ms</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-3 text-soft">
        With these files no hint or order gets below <Bound ms={view.filesBound} />. No plan at all gets below its{' '}
        <Term of="lower bound">bound</Term>, <Bound ms={view.lowerBound} />: connecting, a round trip, and the bare
        modules of the first screen at line rate.
      </p>
      {view.earlyInput ? (
        <p className="mt-2 text-soft">
          Answers early input after <span className="font-medium text-ink">{time(view.earlyInput.waitMs)}</span>: who
          acts on {view.earlyInput.name} as soon as it shows waits that long for its script.
        </p>
      ) : null}
      {view.nineInTen ? (
        <p className="mt-2 text-soft">
          Packets are lost at random: this is the load in the middle of many. Nine of ten have first content by{' '}
          <span className="font-medium whitespace-nowrap text-ink">{time(view.nineInTen.firstContent)}</span> and are
          interactive by{' '}
          <span className="font-medium whitespace-nowrap text-ink">{time(view.nineInTen.interactive)}</span>.
        </p>
      ) : null}
      <RestsOn basis={view.basis} />
      {Number.isFinite(view.milestones.largestContent) ? (
        <p className="mt-2 text-soft">
          <Term of="largest content">Largest content</Term>{' '}
          <span className="font-medium text-ink">{time(view.milestones.largestContent)}</span>: {view.largest} is taken
          for it, by its weight.
        </p>
      ) : null}
      {view.range && Number.isFinite(view.range.high.interactive) ? <Range range={view.range} /> : null}
    </section>
  );
}

/** What estimates, and all that a model leaves out, leave open. */
function Range({ range: { low, high } }: { range: NonNullable<LandingView['range']> }) {
  return (
    <p className="mt-2 text-soft">
      Plausible range: first content <Span from={low.firstContent} to={high.firstContent} />, interactive{' '}
      <Span from={low.interactive} to={high.interactive} />.
    </p>
  );
}

function Span({ from, to }: { from: number; to: number }) {
  return (
    <span className="font-medium whitespace-nowrap text-ink">
      {time(from)} to {time(to)}
    </span>
  );
}

/** Whether what the thread does was measured. */
function RestsOn({ basis }: { basis: ThreadBasis }) {
  const parts = basisWords(basis);
  if (parts.length === 0) return null;
  return <p className="mt-2 text-soft">Until then the thread spends {parts.join(', and ')}.</p>;
}

/** Of what takes long, so many are named. */
const MOST_NAMED = 2;

function Line({ kind, ms, by }: SpentTime) {
  const { colour, words } = CHAIN_LOOKS[kind];
  return (
    <tr>
      <td className="py-[3px] align-top">
        <span
          aria-hidden="true"
          className="mr-2 inline-block size-[11px] rounded-[2px] align-[-1px]"
          style={{ background: colour }}
        />
        <Term means={words}>{kind === 'browser' ? 'browser’s own work' : kind}</Term>
        {kind === 'drawing' ? <Names by={by} /> : null}
      </td>
      <td className="py-[3px] pl-2 text-right whitespace-nowrap">{Math.round(ms)} ms</td>
    </tr>
  );
}

/** What took the time, the longest first. */
function Names({ by }: Pick<SpentTime, 'by'>) {
  const named = by.filter(({ ms }) => ms >= 1).slice(0, MOST_NAMED);
  return (
    <span className="block pl-[19px] text-[11px] text-soft">
      {' '}
      {named.map(({ what, ms }) => `${what} ${Math.round(ms)} ms`).join(', ')}
    </span>
  );
}

function Bound({ ms }: { ms: number }) {
  return <span className="font-medium whitespace-nowrap text-hinted-text">{time(ms)}</span>;
}
