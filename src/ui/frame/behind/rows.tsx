import type { RequestRole } from '../../../core/sim/types.ts';
import { RoleMark } from '../../parts/roles.tsx';

/** One share of a figure: its mark is a plain colour, or that of a role. */
export interface BehindRow {
  key: string;
  colour?: string;
  role?: RequestRole;
  words: string;
  note?: string;
  title?: string;
  value: string;
}

/** Shares of a figure, and what they come to. */
export function Rows({ rows, sum }: { rows: readonly BehindRow[]; sum: string | null }) {
  return (
    <table className="w-full">
      <tbody>
        {rows.map(({ key, colour, role, words, note, title, value }) => (
          <tr key={key} className="align-baseline">
            <td className="max-w-0 py-px">
              <span className="block truncate" title={title}>
                {colour ? (
                  <span
                    aria-hidden="true"
                    className="mr-2 inline-block size-[9px] rounded-[2px]"
                    style={{ background: colour }}
                  />
                ) : null}
                {role ? (
                  <span className="mr-2">
                    <RoleMark role={role} />
                  </span>
                ) : null}
                {words}
                {note ? <span className="ml-2 text-[11px] text-soft">{note}</span> : null}
              </span>
            </td>
            <td className="w-20 py-px pl-2 text-right whitespace-nowrap">{value}</td>
          </tr>
        ))}
        {sum === null ? null : (
          <tr className="border-t border-line font-semibold">
            <td className="pt-1">sum</td>
            <td className="pt-1 text-right whitespace-nowrap">{sum}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
