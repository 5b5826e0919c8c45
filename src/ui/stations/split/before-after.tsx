import type { Preview } from '../../../worker/views.ts';
import { count, size, time } from '../../parts/format.ts';

/** Start times before and after a decision that isn't made yet. */
export function BeforeAfter({ preview }: { preview: Preview | string | null }) {
  if (typeof preview === 'string') return <p className="mt-5 text-worse">{preview}</p>;
  if (!preview) return <p className="mt-5 text-soft">Working out the difference …</p>;
  const { before, after } = preview;
  const longest = Math.max(before.milestones.interactive, after.milestones.interactive, 1);
  return (
    <section className="mt-5" aria-label="Start, before and after">
      <h3 className="mb-1 font-semibold">Start, before and after</h3>
      <Pair
        name="first content"
        was={before.milestones.firstContent}
        is={after.milestones.firstContent}
        longest={longest}
      />
      <Pair
        name="interactive"
        was={before.milestones.interactive}
        is={after.milestones.interactive}
        longest={longest}
      />
      <dl className="mt-2 grid grid-cols-[1fr_auto] gap-y-1 text-soft">
        <dt>start</dt>
        <dd className="text-right">
          {size(before.readout.startBytes)} → {size(after.readout.startBytes)}
        </dd>
        <dt>requests</dt>
        <dd className="text-right">
          {count(before.readout.requests)} → {count(after.readout.requests)}
        </dd>
        <dt>hops</dt>
        <dd className="text-right">
          {count(before.readout.hops)} → {count(after.readout.hops)}
        </dd>
        {before.readout.moves + after.readout.moves > 0 ? (
          <>
            <dt title="Parts of the first screen that come after first content where no room is kept for them">
              parts that push others aside
            </dt>
            <dd className="text-right">
              {count(before.readout.moves)} → {count(after.readout.moves)}
            </dd>
          </>
        ) : null}
      </dl>
    </section>
  );
}

function Pair({ name, was, is, longest }: { name: string; was: number; is: number; longest: number }) {
  const width = (ms: number) => `${Math.min(100, (ms / longest) * 100)}%`;
  return (
    <div className="grid grid-cols-[82px_1fr_108px] items-center gap-2 py-1">
      <span className="text-soft">{name}</span>
      <span aria-hidden="true" className="flex flex-col gap-0.5">
        <span className="h-[7px] bg-[var(--ghost)]" style={{ width: width(was) }} />
        <span className="h-[7px] bg-needed" style={{ width: width(is) }} />
      </span>
      <span className="text-right whitespace-nowrap">
        {time(was)} →{' '}
        <strong className={`font-semibold ${is < was - 0.5 ? 'text-better' : is > was + 0.5 ? 'text-worse' : ''}`}>
          {time(is)}
        </strong>
      </span>
    </div>
  );
}
