import type { ReactNode } from 'react';
import type { Plan } from '../../../core/plan/types.ts';

/** The plans as heads of columns, each above its values; beside them is the change. */
export function PlanHeads({ plans }: { plans: readonly Plan[] }) {
  return plans.map(({ name }, at) => (
    <th key={name} className="px-3 py-1 text-right font-semibold text-ink" title={name}>
      <span className="inline-block max-w-40 truncate align-bottom">{name}</span>
      {at === 0 ? null : <ChangeBeside />}
    </th>
  ));
}

/** A change beside its value: as wide for all, so that the values stand below one another. */
export function ChangeBeside({ children }: { children?: ReactNode }) {
  return <span className="ml-2 inline-block min-w-20 text-left text-xs font-normal">{children}</span>;
}
