'use client';

import type { ReactNode } from 'react';
import type { Plan } from '../../../core/plan/types.ts';
import { ColumnEdge, givenWidth, useColumnWidth } from '../../parts/columns.tsx';

/** The plans as heads of columns, each above its values; beside them is the change. `list`: under which name their widths are remembered. */
export function PlanHeads({ plans, list }: { plans: readonly Plan[]; list: string }) {
  return plans.map(({ name }, at) => <PlanHead key={name} name={name} list={list} at={at} />);
}

function PlanHead({ name, list, at }: { name: string; list: string; at: number }) {
  // By its place: the same table is looked at with other plans.
  const column = useColumnWidth(list, `plan ${at + 1}`);
  return (
    <th
      data-column
      style={givenWidth(column)}
      className="relative px-3 py-1 text-right font-semibold text-ink"
      title={name}
    >
      <span className={`inline-block truncate align-bottom ${column.width === null ? 'max-w-40' : 'max-w-full'}`}>
        {name}
      </span>
      {at === 0 ? null : <ChangeBeside />}
      <ColumnEdge {...column} name={name} />
    </th>
  );
}

/** The head of a column that isn't a plan's; its edge can be moved. */
export function NamedHead({ words, list, className }: { words: string; list: string; className: string }) {
  const column = useColumnWidth(list, words);
  return (
    <th data-column style={givenWidth(column)} className={`relative py-1 text-left font-normal text-soft ${className}`}>
      {words}
      <ColumnEdge {...column} name={words} />
    </th>
  );
}

/** A change beside its value: as wide for all, so that the values stand below one another. */
export function ChangeBeside({ children }: { children?: ReactNode }) {
  return <span className="ml-2 inline-block min-w-20 text-left text-xs font-normal">{children}</span>;
}
