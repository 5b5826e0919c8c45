'use client';

import { CAUSES } from '../../../../core/rehearsals/differences.ts';
import type { Rehearsal } from '../../../../core/rehearsals/types.ts';
import type { RehearsedView } from '../../../../worker/services/rehearsed.ts';
import { time } from '../../../parts/format.ts';

/** What came at another time than predicted and why, what wasn’t run, and what stood in for something. */
export function Differences({ found, rehearsal }: { found: RehearsedView; rehearsal: Rehearsal }) {
  const errors = [...new Set(rehearsal.runs.flatMap((r) => r.errors))];
  return (
    <div className="mb-4 grid gap-2">
      {errors.length > 0 ? (
        <Notes
          open
          title={`The page threw ${errors.length === 1 ? 'an error' : `${errors.length} errors`}`}
          notes={errors}
          strong
        />
      ) : null}
      {found.leftOut.length > 0 ? (
        <Notes
          title="Not run, since only you can edit it in; the prediction beside leaves it out as well"
          notes={found.leftOut}
        />
      ) : null}
      {rehearsal.told.length > 0 ? <Notes title="Otherwise than for a visitor" notes={rehearsal.told} /> : null}
      {found.differences.length > 0 ? (
        <details>
          <summary className="cursor-pointer font-medium">Largest differences ({found.differences.length})</summary>
          <table className="mt-1">
            <tbody>
              {found.differences.map((d) => (
                <tr key={`${d.what}${d.cause}`}>
                  <td className="max-w-64 truncate pr-4" title={d.what}>
                    {d.what}
                  </td>
                  <td className="pr-4 text-right">{d.predicted === null ? '' : time(d.predicted)}</td>
                  <td className="pr-4 text-right">{d.rehearsed === null ? '' : time(d.rehearsed)}</td>
                  <td className="text-soft">{CAUSES[d.cause]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      ) : null}
    </div>
  );
}

function Notes({
  title,
  notes,
  open = false,
  strong = false,
}: {
  title: string;
  notes: string[];
  open?: boolean;
  strong?: boolean;
}) {
  return (
    <details open={open}>
      <summary className={`cursor-pointer ${strong ? 'font-medium text-worse' : 'font-medium'}`}>
        {title} ({notes.length})
      </summary>
      <ul className="mt-0.5 list-disc pl-5 text-soft">
        {notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
    </details>
  );
}
