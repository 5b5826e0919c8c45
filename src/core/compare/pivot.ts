import { ACTION_MEASURES, type ActionMeasure, LANDING_MEASURES, type LandingMeasure } from '../vocabulary/measures.ts';
import type { PlanTable } from './compare.ts';

/** What figures can be laid out along: the plans, the landings (or actions), the conditions. */
export const AXES = ['plans', 'subjects', 'conditions'] as const;
export type Axis = (typeof AXES)[number];

/** A measure of landings or of actions: some have the same name. */
export type PivotMeasure = { of: 'landings'; measure: LandingMeasure } | { of: 'actions'; measure: ActionMeasure };

/** Everything that figures can be asked of, in the order of the lists that are compared. */
export const PIVOT_MEASURES: readonly PivotMeasure[] = [
  ...LANDING_MEASURES.map((measure) => ({ of: 'landings' as const, measure })),
  ...ACTION_MEASURES.map((measure) => ({ of: 'actions' as const, measure })),
];

/** What stands along an axis: a plan, a landing or action, a set of conditions. */
export interface AxisItem {
  /** The same for no other of its axis. */
  key: string;
  name: string;
}

export type Items = Record<Axis, readonly AxisItem[]>;

export interface PivotWish {
  measure: PivotMeasure;
  rows: Axis;
  columns: Axis;
  /** Which item of the axis that is neither. */
  at: number;
  /** By what rows are put in order: as they are given, by their names, or by a column. */
  sort: { by: 'given' } | { by: 'name' | Sorted; column: number; rising: boolean };
}

/** What of a column's figures rows are sorted by: the figure, or how much it changes against the first plan. */
export type Sorted = 'value' | 'change';

/** A figure, and by how much it is more than that of the first plan; null where there is none, and for the first plan itself. */
export interface PivotCell {
  value: number | null;
  change: number | null;
}

export interface PivotTable {
  columns: readonly AxisItem[];
  rows: { item: AxisItem; cells: PivotCell[] }[];
}

/** The landings, or the actions, of tables of plans: those that any of them has, in their order. */
export function subjectsOf(tables: readonly PlanTable[], of: PivotMeasure['of']): AxisItem[] {
  const found = new Map<string, AxisItem>();
  for (const { landings, actions } of tables) {
    if (of === 'landings') for (const { route } of landings) found.set(route, { key: route, name: route });
    else
      for (const { route, part, name } of actions)
        found.set(`${route} ${part}`, { key: `${route} ${part}`, name: `${route} › ${name}` });
  }
  return [...found.values()];
}

/**
 * Figures of plans laid out along two of three axes, for one item of the third. `tables`: one for each plan, in the order of `items.plans`; the
 * first is what the others are compared with. Rows without any figure are left out.
 */
export function pivot(tables: readonly PlanTable[], items: Items, wish: PivotWish): PivotTable {
  const figure = lookUp(tables, wish.measure);
  const third = AXES.find((a) => a !== wish.rows && a !== wish.columns)!;
  const cellAt = (row: number, column: number): PivotCell => {
    const at = { [wish.rows]: row, [wish.columns]: column, [third]: wish.at } as Record<Axis, number>;
    const subject = items.subjects[at.subjects]?.key ?? '';
    const value = figure(at.plans, subject, at.conditions);
    const first = figure(0, subject, at.conditions);
    const isFirst = at.plans === 0;
    return { value, change: isFirst || value === null || first === null ? null : value - first };
  };
  const rows = items[wish.rows]
    .map((item, row) => ({ item, cells: items[wish.columns].map((_, column) => cellAt(row, column)) }))
    .filter(({ cells }) => cells.some((c) => c.value !== null));
  return { columns: items[wish.columns], rows: inOrder(rows, wish.sort) };
}

type Row = PivotTable['rows'][number];

function lookUp(tables: readonly PlanTable[], wanted: PivotMeasure) {
  const maps = tables.map(({ landings, actions }) =>
    wanted.of === 'landings'
      ? new Map(landings.map((l) => [l.route, l.figures.map((f) => f[wanted.measure])]))
      : new Map(actions.map((a) => [`${a.route} ${a.part}`, a.figures.map((f) => f?.[wanted.measure])])),
  );
  return (plan: number, subject: string, conditions: number): number | null => {
    const value = maps[plan]?.get(subject)?.[conditions];
    return value === undefined || !Number.isFinite(value) ? null : value;
  };
}

/** Rows in order; those that have nothing to be sorted by come last, whichever way round. */
function inOrder(rows: readonly Row[], sort: PivotWish['sort']): Row[] {
  if (sort.by === 'given') return [...rows];
  const way = sort.rising ? 1 : -1;
  if (sort.by === 'name') return [...rows].sort((a, b) => way * (a.item.name < b.item.name ? -1 : 1));
  const by = sort.by;
  const of = ({ cells }: Row) => cells[sort.column]?.[by] ?? null;
  return [...rows].sort((a, b) => {
    const [x, y] = [of(a), of(b)];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return way * (x - y);
  });
}
