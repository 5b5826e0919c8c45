import { START_SUMS, type StartSum, total } from '../../../core/metrics/start.ts';
import type { LandingView } from '../../../worker/views.ts';
import { size } from '../../parts/format.ts';
import { RoleMark } from '../../parts/roles.tsx';
import { TERMS } from '../../parts/terms.ts';

/** The files behind the three sums of what a landing fetches by itself. */
export function FilesBehind({ view }: { view: LandingView }) {
  return (
    <>
      <h2 className="font-semibold">What this landing fetches by itself</h2>
      {START_SUMS.map((sum) => (
        <Sum key={sum} view={view} sum={sum} />
      ))}
    </>
  );
}

function Sum({ view, sum }: { view: LandingView; sum: StartSum }) {
  const files = [...view.sums[sum]].sort((a, b) => b.bytes - a.bytes);
  const idle = files.reduce((all, f) => all + f.idle, 0);
  const travels = files.reduce((all, f) => all + view.timeline.requests[f.request].bytes, 0);
  return (
    <section className="mt-3" aria-label={sum}>
      <h3 className="flex justify-between border-b border-line font-medium">
        <span>{sum}</span>
        <span>{size(total(files))}</span>
      </h3>
      <p className="text-[11px] leading-snug text-soft">{TERMS[sum]}</p>
      {files.length === 0 ? <p className="text-soft">no files</p> : null}
      <ul>
        {files.map((f) => {
          const request = view.timeline.requests[f.request];
          return (
            <li key={f.request} className="flex items-baseline gap-2 py-px">
              <RoleMark role={request.role} />
              <span className="min-w-0 flex-1 truncate" title={request.address}>
                {request.name}
              </span>
              {f.idle >= 50 ? (
                <span className="shrink-0 text-[11px] text-soft" title={TERMS['not used at start']}>
                  {size(f.idle)} not used
                </span>
              ) : null}
              <span className="w-16 shrink-0 text-right">{f.unknown ? 'unknown' : size(f.bytes)}</span>
            </li>
          );
        })}
      </ul>
      {total(files) - travels >= 50 ? (
        <p className="mt-1 text-soft">{size(travels)} of it travel; the rest is kept from an earlier visit.</p>
      ) : null}
      {sum === 'start' && idle >= 50 ? (
        <p className="mt-1 text-soft">{size(idle)} of it are modules that the first screen doesn’t need.</p>
      ) : null}
    </section>
  );
}
