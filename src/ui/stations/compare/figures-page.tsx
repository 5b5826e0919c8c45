'use client';

import type { Spread } from '../../../core/rehearsals/spread.ts';
import { MEASURED_AS } from '../../../core/rehearsals/summary.ts';
import { spreadWords } from '../../../core/rehearsals/words.ts';
import type { TextTable } from '../../../core/text/table-text.ts';
import { LANDING_MEASURES, type LandingMeasure, MEASURES } from '../../../core/vocabulary/measures.ts';
import { Change } from '../../parts/change.tsx';
import { Term } from '../../parts/term.tsx';
import { type Compared, conditionsWords } from '../../state/compare.ts';
import { useMeasured } from '../../state/rehearsals.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { changeWords, writerOf } from './measures.ts';
import { ChangeBeside, NamedHead, PlanHeads } from './plan-heads.tsx';
import { Reckoning } from './reckoning.tsx';
import { TakeTables } from './take-along.tsx';

/** Every measure of one landing: plans as columns, conditions as groups of rows. */
export function FiguresPage({ compared }: { compared: Compared }) {
  const { plans, conditions, tables } = compared;
  const route = useWorkbench((s) => s.route);
  const measured = useMeasured();
  if (!tables) return <Reckoning compared={compared} />;
  const figures = tables.map((t) => t.landings.find((l) => l.route === route)?.figures ?? []);
  if (figures.some((f) => f.length === 0)) return <p className="p-4 text-soft">{route} is not among the routes.</p>;
  const rehearsed = conditions.map((under) => plans.map((plan) => measured(plan, route, under)));
  const asText = (): TextTable[] =>
    conditions.map((under, c) => ({
      title: `Landing on ${route}: ${conditionsWords(under)}`,
      head: ['', ...plans.map((p) => p.name)],
      rows: LANDING_MEASURES.flatMap((m) => {
        const seen = seenOf(m, rehearsed[c]);
        return [
          [
            MEASURES[m].name,
            ...figures.map((f, p) => {
              const value = writerOf(m)(f[c][m]);
              return p === 0 ? value : `${value} (${changeWords(m, f[c][m] - figures[0][c][m])})`;
            }),
          ],
          ...(seen ? [[`${MEASURES[m].name}, rehearsed`, ...seen.map((s) => (s ? spreadWords(s) : ''))]] : []),
        ];
      }),
    }));
  return (
    <div className="h-full overflow-auto px-4 py-4">
      <div className="mb-2 flex items-start justify-between gap-4">
        <div>
          <h2 className="text-[15px] font-semibold">Landing on {route}</h2>
          <p className="text-soft">Changes against {plans[0].name}. Less is better for every figure.</p>
        </div>
        <TakeTables tables={asText} file="compare-figures" />
      </div>
      <table className="min-w-[560px]">
        <thead className="sticky top-0 bg-paper">
          <tr>
            <NamedHead words="measure" list="compared figures" className="w-52" />
            <PlanHeads plans={plans} list="compared figures" />
          </tr>
        </thead>
        {conditions.map((under, c) => (
          <tbody key={conditionsWords(under)}>
            <tr>
              <th colSpan={plans.length + 1} scope="rowgroup" className="pt-3 pb-1 text-left font-medium text-soft">
                {conditionsWords(under)}
              </th>
            </tr>
            {LANDING_MEASURES.map((m) => (
              <Row key={m} measure={m} values={figures.map((f) => f[c][m])} seen={seenOf(m, rehearsed[c])} />
            ))}
          </tbody>
        ))}
      </table>
    </div>
  );
}

type Seen = (Spread | null)[];

/** What was rehearsed of a measure, by plan; null where no plan was. */
function seenOf(
  measure: LandingMeasure,
  rehearsed: readonly ReturnType<ReturnType<typeof useMeasured>>[],
): Seen | null {
  const as = MEASURED_AS[measure];
  const seen = rehearsed.map((r) => (as && r?.[as]) ?? null);
  return seen.some((s) => s !== null) ? seen : null;
}

function Row({ measure, values, seen }: { measure: LandingMeasure; values: number[]; seen: Seen | null }) {
  const write = writerOf(measure);
  const best = Math.min(...values.filter(Number.isFinite));
  const differ = values.some((v) => write(v) !== write(values[0]));
  const row = (
    <tr className="hover:bg-band">
      <th scope="row" className="border-t border-line py-1 pr-4 text-left font-normal">
        <Term means={MEASURES[measure].about}>{MEASURES[measure].name}</Term>
      </th>
      {values.map((value, p) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the columns are the plans, in their order
        <td key={p} className="border-t border-line px-3 py-1 text-right whitespace-nowrap">
          <span className={differ && value === best ? 'font-semibold' : ''}>{write(value)}</span>
          {p === 0 ? null : (
            <ChangeBeside>
              <Change value={value - values[0]} format={write} />
            </ChangeBeside>
          )}
        </td>
      ))}
    </tr>
  );
  if (!seen) return row;
  return (
    <>
      {row}
      <tr className="hover:bg-band">
        <th scope="row" className="py-0.5 pr-4 pl-3 text-left font-normal text-soft">
          <Term means="measured in a browser, with its spread over several runs">rehearsed</Term>
        </th>
        {seen.map((spread, p) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the columns are the plans, in their order
          <td key={p} className="px-3 py-0.5 text-right whitespace-nowrap">
            {spread ? spreadWords(spread) : <span className="text-soft">not yet</span>}
            {p === 0 ? null : (
              <ChangeBeside>
                {spread && seen[0] ? <Change value={spread.median - seen[0].median} format={write} /> : null}
              </ChangeBeside>
            )}
          </td>
        ))}
      </tr>
    </>
  );
}
