import type { ReactNode } from 'react';

/** What a drawing shows, as a table: for whoever can't see it, or wants the figures. */
export function AsTable({
  heads,
  rows,
  words = 1,
  className = 'mt-2',
}: {
  heads: readonly string[];
  rows: readonly (readonly ReactNode[])[];
  /** So many columns hold words; the others hold figures. */
  words?: number;
  className?: string;
}) {
  const side = (at: number) => (at < words ? 'pr-3 text-left' : 'text-right');
  return (
    <details className={className}>
      <summary className="cursor-pointer py-1 text-soft">as a table</summary>
      <table className="mt-1 w-full max-w-4xl">
        <thead className="text-soft">
          <tr>
            {heads.map((head, at) => (
              <th key={head} scope="col" className={`py-0.5 font-normal ${side(at)}`}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, row) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows of a drawing have no other name
            <tr key={row} className="border-t border-line">
              {cells.map((cell, at) => (
                <td key={heads[at]} className={`py-0.5 ${side(at)}`}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
