import type { ActionFigures, LandingFigures } from '../vocabulary/measures.ts';
import type { PlanTable } from './compare.ts';
import { AXES, type Axis, type Items, type PivotWish, pivot, subjectsOf } from './pivot.ts';

/** A figure that says which plan, subject and conditions it is of. */
const numberOf = (plan: number, subject: number, under: number) => 100 * plan + 10 * subject + under;
const landing = (value: number) => ({ interactive: value, 'first content': 1 }) as LandingFigures;
const action = (value: number) => ({ wait: value, bytes: 1 }) as ActionFigures;

const tables: PlanTable[] = [0, 1].map((plan) => ({
  landings: ['/', '/list', '/far'].map((route, s) => ({
    route,
    figures: [0, 1].map((under) => landing(numberOf(plan, s, under))),
  })),
  actions: [
    { route: '/', part: 'menu', name: 'open it', figures: [action(numberOf(plan, 0, 0)), null] },
    ...(plan === 1 ? [{ route: '/far', part: 'map', name: 'draw', figures: [action(7), action(8)] }] : []),
  ],
}));
const named = (...names: string[]) => names.map((name) => ({ key: name, name }));
const items = (of: 'landings' | 'actions' = 'landings'): Items => ({
  plans: named('Baseline', 'Lean'),
  subjects: subjectsOf(tables, of),
  conditions: named('fast', 'slow'),
});
const wish = (more: Partial<PivotWish> = {}): PivotWish => ({
  ...{ measure: { of: 'landings', measure: 'interactive' }, rows: 'subjects', columns: 'plans', at: 0 },
  sort: { by: 'given' },
  ...more,
});
const table = (more: Partial<PivotWish> = {}, of: 'landings' | 'actions' = 'landings') =>
  pivot(tables, items(of), wish(more));
const order = (sort: PivotWish['sort']) => table({ sort, columns: 'plans' }).rows.map((r) => r.item.name);

describe('figures along two of three axes', () => {
  it('are those of the tables, whichever axes they are laid out along', () => {
    for (const rows of AXES)
      for (const columns of AXES.filter((a) => a !== rows)) {
        const third = AXES.find((a) => a !== rows && a !== columns)!;
        for (let at = 0; at < items()[third].length; at++) {
          const found = table({ rows, columns, at });
          expect(found.columns).toEqual(items()[columns]);
          expect(found.rows.map((r) => r.item)).toEqual(items()[rows]);
          found.rows.forEach(({ cells }, r) => {
            cells.forEach((cell, c) => {
              const place = { [rows]: r, [columns]: c, [third]: at } as Record<Axis, number>;
              const value = numberOf(place.plans, place.subjects, place.conditions);
              expect(cell).toEqual({ value, change: place.plans === 0 ? null : 100 });
            });
          });
        }
      }
  });

  it('of actions have holes where a plan or conditions have no such action, and no rows of nothing but holes', () => {
    const measure = { of: 'actions', measure: 'wait' } as const;
    const found = table({ measure }, 'actions');
    expect(found.rows.map((r) => [r.item.name, r.cells])).toEqual([
      [
        '/ › open it',
        [
          { value: 0, change: null },
          { value: 100, change: 100 },
        ],
      ],
      [
        '/far › draw',
        [
          { value: null, change: null },
          { value: 7, change: null },
        ],
      ],
    ]);
    expect(table({ measure, at: 1 }, 'actions').rows.map((r) => r.item.name)).toEqual(['/far › draw']);
  });

  it('are sorted by name, value or change, either way, what has none last', () => {
    expect(order({ by: 'name', column: 0, rising: true })).toEqual(['/', '/far', '/list']);
    expect(order({ by: 'name', column: 0, rising: false })).toEqual(['/list', '/far', '/']);
    expect(order({ by: 'value', column: 0, rising: false })).toEqual(['/far', '/list', '/']);
    expect(order({ by: 'value', column: 1, rising: true })).toEqual(['/', '/list', '/far']);
    const measure = { of: 'actions', measure: 'wait' } as const;
    for (const rising of [true, false]) {
      const rows = table({ measure, sort: { by: 'change', column: 1, rising } }, 'actions').rows;
      expect(rows.map((r) => r.item.name)).toEqual(['/ › open it', '/far › draw']);
    }
  });

  it('that never come are none', () => {
    const never = [{ landings: [{ route: '/', figures: [landing(Number.POSITIVE_INFINITY)] }], actions: [] }];
    const one: Items = { plans: named('a'), subjects: subjectsOf(never, 'landings'), conditions: named('x') };
    expect(pivot(never, one, wish()).rows).toEqual([]);
  });
});
