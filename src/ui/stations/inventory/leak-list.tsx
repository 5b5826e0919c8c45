'use client';

import type { Leak } from '../../../core/inventory/leaks.ts';
import { Few } from '../../parts/few.tsx';
import { size } from '../../parts/format.ts';
import { chooseOn } from '../../state/go-to-route.ts';
import { goTo } from '../../state/stations.ts';
import { useWorkbench } from '../../state/workbench.ts';

const FEW = 3;

/** Code of one route in the start of others, with the line that does it. */
export function LeakList({ leaks }: { leaks: Leak[] }) {
  const route = useWorkbench((s) => s.route);
  if (leaks.length === 0) return null;
  const show = (leak: Leak) => {
    // On the route that is looked at, where that pays for it as well.
    chooseOn(leak.paidBy.includes(route) ? route : leak.paidBy[0], { kind: 'import', key: leak.import });
    goTo('split');
  };
  return (
    <section className="mb-6">
      <h2 className="text-[15px] font-semibold">In the wrong start</h2>
      <p className="mb-1 text-soft">code that some routes need, paid for by others because of one import</p>
      <ul>
        <Few rows={leaks} most={FEW} as="li" words="smaller ones">
          {(leak) => (
            <li
              key={leak.import}
              className="grid grid-cols-[64px_minmax(0,1fr)_auto] items-baseline gap-3 border-b border-line py-1.5"
            >
              <span className="text-right font-semibold text-worse">{size(leak.weight.compressed)}</span>
              <span className="min-w-0">
                <span className="font-medium">{leak.name}</span>{' '}
                <span className="text-soft">
                  for {listed(leak.neededBy)}, paid by{' '}
                  {leak.paidBy.length === 1 ? leak.paidBy[0] : `${leak.paidBy.length} other routes`}
                  {leak.siblings > 1 ? `; ${leak.siblings} sibling pages are deferred, this one is not` : ''}
                </span>
                <span className="block truncate text-[11px] text-soft" title={`${leak.from}:${leak.line}`}>
                  {leak.from}, line {leak.line}
                </span>
              </span>
              <button type="button" onClick={() => show(leak)} className="underline">
                show in Split
              </button>
            </li>
          )}
        </Few>
      </ul>
    </section>
  );
}

function listed(patterns: string[]): string {
  return patterns.length <= 2 ? patterns.join(' and ') : `${patterns[0]} and ${patterns.length - 1} more`;
}
