import { ROLES } from '../../parts/roles.tsx';
import { Term } from '../../parts/term.tsx';

const ROWS = [
  ['needed', 'needed'],
  ['hinted', 'hinted'],
  ['on-demand', 'on demand'],
  ['in-case', 'in case'],
  ['wasted', 'wasted'],
] as const;

/** What the cells' looks mean. */
export function SheetLegend() {
  return (
    <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[12px] text-soft">
      {ROWS.map(([look, words]) => (
        <li key={look} className="flex items-center gap-1.5">
          <span aria-hidden="true" className={`inline-block h-3 w-4 rounded-[2px] cell-${look}`} />
          <Term means={ROLES[words].words}>{words}</Term>
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <span aria-hidden="true" className="inline-block h-px w-4 bg-faint" /> already here
      </li>
      <li className="flex items-center gap-1.5">
        <span aria-hidden="true" className="inline-grid h-3 w-4 place-items-center rounded-[2px] cell-ready text-[9px]">
          ✓
        </span>
        used, prefetched earlier
      </li>
    </ul>
  );
}
