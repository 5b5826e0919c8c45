'use client';

import type { PivotCell, PivotTable, Sorted } from '../../../core/compare/pivot.ts';
import type { Measure } from '../../../core/vocabulary/measures.ts';
import { Change } from '../../parts/change.tsx';
import { ColumnEdge, givenWidth, useColumnWidth } from '../../parts/columns.tsx';
import { OrderButton } from '../../parts/order.tsx';
import { usePivotChoice } from '../../state/pivot.ts';
import { writerOf } from './measures.ts';

/** Figures with their change against the first plan, each as long as it is beside the largest; heads sort by what they stand above. */
export function AcrossTable({
  table: { columns, rows },
  measure,
  first,
  along,
}: {
  table: PivotTable;
  measure: Measure;
  /** The plan that changes are against. */
  first: string;
  /** What the rows are called. */
  along: string;
}) {
  const write = writerOf(measure);
  const most = Math.max(1e-9, ...rows.flatMap((r) => r.cells.map((c) => c.value ?? 0)));
  // Where all of a column is of the first plan nothing changes in it.
  const changes = columns.map((_, c) => rows.some((r) => r.cells[c].change !== null && r.cells[c].change !== 0));
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-4">
      <table className="w-full min-w-[560px] border-separate border-spacing-0">
        <caption className="pb-2 text-left text-soft">Changes against {first}. Less is better.</caption>
        <thead>
          <tr>
            <SortHead words={along} />
            {columns.map((column, c) => (
              <FigureHead key={column.key} name={column.name} at={c} hasChanges={changes[c]} />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ item, cells }) => (
            <tr key={item.key} className="hover:bg-band">
              <th
                scope="row"
                title={item.name}
                className="max-w-72 truncate border-b border-line py-1 pr-4 text-left font-normal"
              >
                {item.name}
              </th>
              {cells.map((cell, c) => (
                <Cell key={columns[c].key} cell={cell} most={most} write={write} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function FigureHead({ name, at, hasChanges }: { name: string; at: number; hasChanges: boolean }) {
  return (
    <th
      scope="col"
      colSpan={2}
      className="sticky top-0 z-10 border-b border-line bg-sheet px-3 py-1 text-left font-semibold"
      title={name}
    >
      <span className="block max-w-72 truncate">{name}</span>
      <span className="flex gap-3 text-xs font-normal">
        <SortButton words="figure" of="value" column={at} />
        {hasChanges ? <SortButton words="change" of="change" column={at} /> : null}
      </span>
    </th>
  );
}

function Cell({ cell, most, write }: { cell: PivotCell; most: number; write: (value: number) => string }) {
  const { value, change } = cell;
  if (value === null)
    return (
      <td colSpan={2} className="border-b border-line px-3 py-1 text-soft">
        not there
      </td>
    );
  return (
    <>
      <td className="w-[1%] border-b border-line py-1 pl-3 text-right whitespace-nowrap">
        {write(value)}
        <span className="ml-2 inline-block min-w-20 text-left text-xs">
          {change === null ? null : <Change value={change} format={write} />}
        </span>
      </td>
      <td className="min-w-16 border-b border-line py-1 pr-3 pl-1">
        <span aria-hidden="true" className="block h-1.5 bg-faint" style={{ width: `${(value / most) * 100}%` }} />
      </td>
    </>
  );
}

function SortHead({ words }: { words: string }) {
  const sort = usePivotChoice((s) => s.sort);
  const rising = sort.by === 'name' ? sort.rising : null;
  // The figures share what this one leaves.
  const width = useColumnWidth('compared across', 'name');
  return (
    <th
      scope="col"
      data-column
      style={givenWidth(width)}
      aria-sort={rising === null ? 'none' : rising ? 'ascending' : 'descending'}
      className="sticky top-0 z-10 border-b border-line bg-sheet py-1 text-left align-bottom text-xs font-normal"
    >
      <SortButton words={words} of="name" column={0} />
      <ColumnEdge {...width} name={words} />
    </th>
  );
}

/** Sorts by a column: names begin with a, figures with the largest, changes with what becomes best; pressed again, the other way round. */
function SortButton({ words, of, column }: { words: string; of: 'name' | Sorted; column: number }) {
  const sort = usePivotChoice((s) => s.sort);
  const mine = sort.by === of && sort.column === column ? sort : null;
  return (
    <OrderButton
      words={words}
      rising={mine?.rising ?? null}
      onSort={() => usePivotChoice.setState({ sort: { by: of, column, rising: mine ? !mine.rising : of !== 'value' } })}
    />
  );
}
