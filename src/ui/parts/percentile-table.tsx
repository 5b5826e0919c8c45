import { percentile } from '../../core/mix/percentile.ts';
import { Change } from './change.tsx';
import { percent, time } from './format.ts';

export const PERCENTILES = [0.1, 0.25, 0.5, 0.75, 0.9, 0.95] as const;

export interface PercentileRow {
  name: string;
  values: readonly number[];
  /** What it is compared with; null for what others are compared with. */
  against: readonly number[] | null;
}

/** Times that a share of the visits is faster than, with their change. */
export function PercentileTable({ title, rows }: { title: string; rows: readonly PercentileRow[] }) {
  return (
    <table className="w-full max-w-4xl">
      <thead>
        <tr className="text-left text-soft">
          <th className="font-normal">{title}</th>
          {PERCENTILES.map((s) => (
            <th key={s} className="text-right font-normal">
              {percent(s)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, values, against }) => (
          <tr key={name} className="border-t border-line align-top">
            <th className="max-w-64 truncate py-1 text-left font-medium" title={name}>
              {name}
            </th>
            {PERCENTILES.map((s) => {
              const now = percentile(values, s);
              return (
                <td key={s} className="py-1 text-right">
                  {time(now)}
                  <span className="block text-[11px]">
                    {against === null ? null : <Change value={now - percentile(against, s)} format={time} />}
                  </span>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
