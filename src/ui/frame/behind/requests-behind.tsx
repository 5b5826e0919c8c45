import { longestHops, requestsUntil, unusedRequests } from '../../../core/metrics/behind.ts';
import type { RequestRecord } from '../../../core/sim/types.ts';
import type { LandingView } from '../../../worker/views.ts';
import { size, time } from '../../parts/format.ts';
import { ROLES } from '../../parts/roles.tsx';
import { Rows } from './rows.tsx';

/** The requests that are sent until interactive, by what they are for. */
export function RequestsBehind({ view: { timeline, milestones } }: { view: LandingView }) {
  const requests = requestsUntil(timeline, milestones.interactive);
  const byRole = new Map<RequestRecord['role'], RequestRecord[]>();
  for (const r of requests) byRole.set(r.role, [...(byRole.get(r.role) ?? []), r]);
  return (
    <>
      <h2 className="mb-2 font-semibold">Requests until interactive</h2>
      <Rows
        rows={[...byRole].map(([role, own]) => ({
          key: role,
          role,
          words: ROLES[role].name,
          note: own.map((r) => r.name).join(', '),
          title: own.map((r) => r.name).join(', '),
          value: String(own.length),
        }))}
        sum={String(requests.length)}
      />
    </>
  );
}

/** The longest chain of discoveries: who asked for whom, and when. */
export function HopsBehind({ view: { timeline, milestones } }: { view: LandingView }) {
  const chain = longestHops(timeline, milestones.interactive);
  return (
    <>
      <h2 className="font-semibold">The longest chain of discoveries</h2>
      <p className="mb-2 text-[11px] text-soft">each is asked for by the one before; all of them until interactive</p>
      <Rows
        rows={chain.map((r) => ({
          key: `${r.hop}`,
          words: `${r.hop} · ${r.name}`,
          note: r.hop === 0 ? undefined : r.cause.what,
          value: time(r.discovered),
        }))}
        sum={null}
      />
    </>
  );
}

/** What the landing fetches and doesn't use. */
export function WasteBehind({ view: { timeline } }: { view: LandingView }) {
  const unused = unusedRequests(timeline);
  return (
    <>
      <h2 className="mb-2 font-semibold">Fetched, and not used on this landing</h2>
      {unused.length === 0 ? (
        <p className="text-soft">Everything that is fetched is used.</p>
      ) : (
        <Rows
          rows={unused.map((r) => ({
            key: `${r.address} ${r.sent}`,
            role: r.role,
            words: r.name,
            note: ROLES[r.role].words,
            value: size(r.bytes),
          }))}
          sum={size(unused.reduce((sum, r) => sum + r.bytes, 0))}
        />
      )}
    </>
  );
}
