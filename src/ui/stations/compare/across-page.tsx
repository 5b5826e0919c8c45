'use client';

import {
  AXES,
  type Axis,
  type Items,
  PIVOT_MEASURES,
  type PivotMeasure,
  type PivotTable,
  pivot,
  subjectsOf,
} from '../../../core/compare/pivot.ts';
import type { TextTable } from '../../../core/text/table-text.ts';
import { MEASURES } from '../../../core/vocabulary/measures.ts';
import { type Compared, conditionsWords } from '../../state/compare.ts';
import { layAlong, type PivotChoice, thirdAxis, usePivotChoice } from '../../state/pivot.ts';
import { AcrossTable } from './across-table.tsx';
import { changeWords, writerOf } from './measures.ts';
import { Reckoning } from './reckoning.tsx';
import { TakeTables } from './take-along.tsx';

const FIELD = 'rounded border border-line bg-sheet px-1 py-0.5 max-w-64';

/** One measure over plans, landings and conditions: two of them as rows and columns, one item of the third. */
export function AcrossPage({ compared }: { compared: Compared }) {
  const choice = usePivotChoice();
  const { plans, conditions, tables } = compared;
  if (!tables) return <Reckoning compared={compared} />;
  const measure = PIVOT_MEASURES[choice.measure];
  const items: Items = {
    plans: plans.map(({ name }) => ({ key: name, name })),
    subjects: subjectsOf(tables, measure.of),
    conditions: conditions.map((c) => ({ key: conditionsWords(c), name: conditionsWords(c) })),
  };
  const third = thirdAxis(choice);
  const at = Math.min(choice.at, items[third].length - 1);
  const whole = pivot(tables, items, { ...choice, measure, at });
  const write = writerOf(measure.measure);
  const changes = (cells: PivotTable['rows'][number]['cells']) =>
    cells.some((c) => c.value === null || (c.change !== null && write(Math.abs(c.change)) !== write(0)));
  const shown = choice.onlyChanged ? { ...whole, rows: whole.rows.filter((r) => changes(r.cells)) } : whole;
  const title = `${nameOf(measure)}, ${items[third][at]?.name ?? ''}`;
  return (
    <div className="flex h-full min-h-0 flex-col px-4 pt-4">
      <div className="mb-3 flex items-start justify-between gap-4">
        <Layout choice={choice} items={items} at={at} third={third} />
        <TakeTables tables={() => [asText(title, shown, measure)]} file="compare-across" />
      </div>
      {shown.rows.length === 0 ? (
        <p className="text-soft">
          {whole.rows.length === 0
            ? `None of these has ${measure.of === 'actions' ? 'an action' : 'a landing'}.`
            : 'These plans don’t differ in it.'}
        </p>
      ) : (
        <AcrossTable
          table={shown}
          measure={measure.measure}
          first={plans[0].name}
          along={calledIn(measure)[choice.rows]}
        />
      )}
    </div>
  );
}

function nameOf({ of, measure }: PivotMeasure): string {
  return of === 'actions' ? `${MEASURES[measure].name} (actions)` : MEASURES[measure].name;
}

/** What stands along each axis, in words. */
function calledIn({ of }: PivotMeasure): Record<Axis, string> {
  return { plans: 'plans', subjects: of, conditions: 'conditions' };
}

/** What is shown, and along which sides. */
function Layout({ choice, items, at, third }: { choice: PivotChoice; items: Items; at: number; third: Axis }) {
  const called = calledIn(PIVOT_MEASURES[choice.measure]);
  const side = (name: 'rows' | 'columns') => (
    <label className="flex items-center gap-1.5">
      <span className="text-soft">{name}</span>
      <select value={choice[name]} onChange={(event) => layAlong(name, event.target.value as Axis)} className={FIELD}>
        {AXES.map((axis) => (
          <option key={axis} value={axis}>
            {called[axis]}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <label className="flex items-center gap-1.5">
        <span className="text-soft">measure</span>
        <select
          value={choice.measure}
          onChange={(event) => usePivotChoice.setState({ measure: Number(event.target.value), sort: { by: 'given' } })}
          className={FIELD}
        >
          {PIVOT_MEASURES.map((m, n) => (
            <option key={nameOf(m)} value={n}>
              {nameOf(m)}
            </option>
          ))}
        </select>
      </label>
      {side('rows')}
      {side('columns')}
      <label className="flex items-center gap-1.5">
        <span className="text-soft">for</span>
        <select
          value={at}
          onChange={(event) => usePivotChoice.setState({ at: Number(event.target.value) })}
          className={FIELD}
        >
          {items[third].map(({ key, name }, n) => (
            <option key={key} value={n}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={choice.onlyChanged}
          onChange={(event) => usePivotChoice.setState({ onlyChanged: event.target.checked })}
        />
        only what differs
      </label>
    </div>
  );
}

function asText(title: string, { columns, rows }: PivotTable, { measure }: PivotMeasure): TextTable {
  const write = writerOf(measure);
  return {
    title,
    head: ['', ...columns.map((c) => c.name)],
    rows: rows.map(({ item, cells }) => [
      item.name,
      ...cells.map(({ value, change }) => {
        if (value === null) return '';
        return change === null || change === 0 ? write(value) : `${write(value)} (${changeWords(measure, change)})`;
      }),
    ]),
  };
}
