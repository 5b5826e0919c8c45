'use client';

import { useState } from 'react';
import type { TextTable } from '../../../core/text/table-text.ts';
import type { ActionMeasure, LandingMeasure, Measure } from '../../../core/vocabulary/measures.ts';
import { MEASURES } from '../../../core/vocabulary/measures.ts';
import { Change } from '../../parts/change.tsx';
import { Term } from '../../parts/term.tsx';
import { type Compared, conditionsWords } from '../../state/compare.ts';
import { changeWords, writerOf } from './measures.ts';
import { ChangeBeside, NamedHead, PlanHeads } from './plan-heads.tsx';
import { Reckoning } from './reckoning.tsx';
import { TakeTables } from './take-along.tsx';

const OF_LANDING: LandingMeasure[] = ['start bytes', 'requests', 'hops', 'first content', 'interactive'];
const OF_ACTION: ActionMeasure[] = ['wait', 'bytes'];

interface Line {
  measure: Measure;
  values: (number | null)[];
}

interface Group {
  /** The same for no other group. */
  key: string;
  name: string;
  /** What belongs to a landing follows it. */
  inside: boolean;
  lines: Line[];
}

/** Every route and action under one set of conditions: plans as columns. */
export function RoutesPage({ compared }: { compared: Compared }) {
  const { plans, conditions, tables } = compared;
  const [chosen, setChosen] = useState(0);
  const [onlyChanged, setOnlyChanged] = useState(false);
  if (!tables) return <Reckoning compared={compared} />;
  const c = Math.min(chosen, conditions.length - 1);
  const all: Group[] = tables[0].landings.flatMap(({ route }, at) => [
    {
      key: route,
      name: route,
      inside: false,
      lines: OF_LANDING.map((measure) => ({ measure, values: tables.map((t) => t.landings[at].figures[c][measure]) })),
    },
    ...tables[0].actions
      .filter((a) => a.route === route)
      .map(({ part, name }): Group => {
        const figures = tables.map((t) => t.actions.find((a) => a.route === route && a.part === part)?.figures[c]);
        const lines = OF_ACTION.map((measure) => ({ measure, values: figures.map((f) => f?.[measure] ?? null) }));
        return { key: `${route} ${part}`, name, inside: true, lines };
      }),
  ]);
  const differs = ({ measure, values }: Line) => {
    const write = writerOf(measure);
    return values.some((v) => v === null || values[0] === null || write(v) !== write(values[0]));
  };
  const groups = onlyChanged
    ? all.map((g) => ({ ...g, lines: g.lines.filter(differs) })).filter((g) => g.lines.length > 0)
    : all;
  const asText = (): TextTable[] => [
    {
      title: `Routes and actions: ${conditionsWords(conditions[c])}`,
      head: ['', 'measure', ...plans.map((p) => p.name)],
      rows: groups.flatMap((g) =>
        g.lines.map(({ measure, values }) => [
          g.inside ? `› ${g.name}` : g.name,
          MEASURES[measure].name,
          ...values.map((v, p) => textOf(measure, v, p === 0 ? null : values[0])),
        ]),
      ),
    },
  ];
  return (
    <div className="h-full overflow-auto px-4 py-4">
      <div className="mb-2 flex items-start justify-between gap-4">
        <div className="flex flex-wrap items-center gap-4">
          <h2 className="text-[15px] font-semibold">Routes and actions</h2>
          {conditions.length > 1 ? (
            <select
              aria-label="Conditions"
              value={c}
              onChange={(event) => setChosen(Number(event.target.value))}
              className="rounded border border-line bg-sheet px-1 py-0.5"
            >
              {conditions.map((under, at) => (
                <option key={conditionsWords(under)} value={at}>
                  {conditionsWords(under)}
                </option>
              ))}
            </select>
          ) : (
            <span className="text-soft">{conditionsWords(conditions[0])}</span>
          )}
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={onlyChanged} onChange={(event) => setOnlyChanged(event.target.checked)} />
            only what differs
          </label>
        </div>
        <TakeTables tables={asText} file="compare-routes" />
      </div>
      {groups.length === 0 ? <p className="text-soft">These plans don’t differ in any of it.</p> : null}
      <table className="min-w-[560px]">
        <thead className="sticky top-0 bg-paper">
          <tr className="text-soft">
            <NamedHead words="landing, › action" list="compared routes" className="w-44" />
            <NamedHead words="measure" list="compared routes" className="w-28" />
            <PlanHeads plans={plans} list="compared routes" />
          </tr>
        </thead>
        <tbody>
          {groups.map((g) =>
            g.lines.map((line, n) => (
              <Row key={`${g.key} ${line.measure}`} group={n === 0 ? g : null} of={g} line={line} />
            )),
          )}
        </tbody>
      </table>
    </div>
  );
}

function textOf(measure: Measure, value: number | null, first: number | null): string {
  if (value === null) return '';
  const words = writerOf(measure)(value);
  return first === null ? words : `${words} (${changeWords(measure, value - first)})`;
}

function Row({ group, of, line: { measure, values } }: { group: Group | null; of: Group; line: Line }) {
  const write = writerOf(measure);
  const cell = `${group ? 'border-t border-line' : ''} py-0.5`;
  const [first] = values;
  return (
    <tr className="hover:bg-band">
      {group ? (
        <th
          scope="rowgroup"
          rowSpan={of.lines.length}
          className={`${cell} max-w-44 truncate pr-3 text-left align-top ${of.inside ? 'pl-3 font-normal' : 'font-semibold'}`}
          title={of.name}
        >
          {of.inside ? '› ' : ''}
          {of.name}
        </th>
      ) : null}
      <th scope="row" className={`${cell} text-left font-normal text-soft`}>
        <Term means={MEASURES[measure].about}>{MEASURES[measure].name}</Term>
      </th>
      {values.map((value, p) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the columns are the plans, in their order
        <td key={p} className={`${cell} px-3 text-right whitespace-nowrap`}>
          {value === null ? <span className="text-soft">not there</span> : write(value)}
          {p === 0 ? null : (
            <ChangeBeside>
              {value === null || first === null ? null : <Change value={value - first} format={write} />}
            </ChangeBeside>
          )}
        </td>
      ))}
    </tr>
  );
}
