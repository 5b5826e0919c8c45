'use client';

import { type ReactNode, useState } from 'react';

/** So many rows more come with each press: thousands at once would take long to draw. */
const STEP = 200;

/**
 * The first rows of a list that may be long; a press brings more of them, so that none is out of reach. `as`: what a row is, for the one that holds
 * the button; `children` draws one row. `words`: what the others are.
 */
export function Few<Row>({
  rows,
  most,
  as,
  words = 'more',
  columns,
  children,
}: {
  rows: readonly Row[];
  most: number;
  as: 'li' | 'tr' | 'p' | 'span';
  words?: string;
  /** How many columns the table has, where a row is one of a table. */
  columns?: number;
  children: (row: Row, index: number) => ReactNode;
}) {
  const [also, setAlso] = useState(0);
  const shown = most + also;
  const left = rows.length - shown;
  return (
    <>
      {rows.slice(0, shown).map(children)}
      {left > 0 ? (
        <Last as={as} columns={columns}>
          <button
            type="button"
            className="min-h-6 text-soft underline hover:text-ink"
            onClick={() => setAlso(also + STEP)}
          >
            and {left} {words}
          </button>
        </Last>
      ) : null}
    </>
  );
}

function Last({
  as,
  columns,
  children,
}: {
  as: 'li' | 'tr' | 'p' | 'span';
  columns: number | undefined;
  children: ReactNode;
}) {
  if (as === 'li') return <li>{children}</li>;
  if (as === 'p') return <p>{children}</p>;
  if (as === 'span') return <span className="block">{children}</span>;
  return (
    <tr>
      <td colSpan={columns}>{children}</td>
    </tr>
  );
}
