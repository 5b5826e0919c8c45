'use client';

import { create } from 'zustand';
import { AXES, type Axis, type PivotWish } from '../../core/compare/pivot.ts';

/** How figures are laid out across plans, landings and conditions; kept while the page is open. */
export interface PivotChoice extends Omit<PivotWish, 'measure'> {
  /** Position of the measure among all that can be asked. */
  measure: number;
  onlyChanged: boolean;
}

export const usePivotChoice = create<PivotChoice>()(() => ({
  ...{ measure: 2, rows: 'subjects', columns: 'plans', at: 0, onlyChanged: false },
  sort: { by: 'given' },
}));

/** Lays an axis along the rows or the columns; where the other one has it, the two change places. Rows begin in their own order again. */
export function layAlong(side: 'rows' | 'columns', axis: Axis): void {
  usePivotChoice.setState(({ rows, columns }) => {
    const [mine, other] = side === 'rows' ? [rows, columns] : [columns, rows];
    if (axis === mine) return {};
    const next = axis === other ? mine : other;
    return {
      ...(side === 'rows' ? { rows: axis, columns: next } : { columns: axis, rows: next }),
      ...{ at: 0, sort: { by: 'given' } as const },
    };
  });
}

/** The axis of which one item at a time is shown. */
export function thirdAxis({ rows, columns }: Pick<PivotChoice, 'rows' | 'columns'>): Axis {
  return AXES.find((a) => a !== rows && a !== columns)!;
}
