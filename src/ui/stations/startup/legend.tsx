import type { RequestRole } from '../../../core/sim/types.ts';
import type { LandingView } from '../../../worker/views.ts';
import { ROLES, RoleMark } from '../../parts/roles.tsx';

const ORDER: RequestRole[] = ['needed', 'hinted', 'on demand', 'in case', 'wasted', 'content'];

/** How to read the bars: why things travel (only what occurs here), and the three phases of a request. */
export function Legend({ view }: { view: LandingView }) {
  const present = new Set(view.timeline.requests.map((r) => r.role));
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h2 className="mb-1.5 font-semibold">How to read the bars</h2>
      <ul className="grid gap-1">
        {ORDER.filter((role) => present.has(role)).map((role) => (
          <li key={role} className="flex items-baseline gap-2">
            <RoleMark role={role} />
            <span>
              {role} <span className="text-soft">{ROLES[role].words}</span>
            </span>
          </li>
        ))}
        <li className="flex items-center gap-2">
          <Phases />
          <span className="text-soft">held back, waiting, receiving: as thick as its share of the link</span>
        </li>
      </ul>
    </section>
  );
}

function Phases() {
  return (
    <svg width="62" height="14" className="shrink-0" aria-hidden="true">
      <title>phases</title>
      <line x1="0" x2="16" y1="7" y2="7" stroke="var(--needed)" strokeDasharray="1.5 2.500" />
      <line x1="19" x2="36" y1="7" y2="7" stroke="var(--needed)" strokeWidth="1.300" />
      <rect x="36" y="4.500" width="12" height="5" fill="var(--needed)" />
      <rect x="48" y="0.500" width="13" height="13" fill="var(--needed)" />
      <circle cx="18" cy="7" r="2.500" fill="var(--sheet)" stroke="var(--needed)" strokeWidth="1.400" />
    </svg>
  );
}
