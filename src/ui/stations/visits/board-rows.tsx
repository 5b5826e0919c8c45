'use client';

import type { Expectation, WishRow } from '../../../core/visitors/expect.ts';
import { Change } from '../../parts/change.tsx';
import { percent, size, time } from '../../parts/format.ts';

const BAR = 90;

/** Moves and acts by what they cost a visit on average, and the landings that they come after. */
export function BoardRows({
  now,
  baseline,
  route,
  onRoute,
  onPlay,
}: {
  now: Expectation;
  baseline: Expectation | null;
  route: string | null;
  onRoute: (route: string | null) => void;
  onPlay: (row: WishRow) => void;
}) {
  const cost = (row: WishRow) => (row.wait?.value ?? 0) * row.perVisit;
  const rows = [...now.rows].sort((a, b) => cost(b) - cost(a));
  const most = Math.max(1, ...rows.map(cost));
  const before = new Map(baseline?.rows.map((r) => [r.key, r]));
  return (
    <>
      <table className="w-full table-fixed">
        <colgroup>
          <col />
          <col className="w-[74px]" />
          <col className="w-[104px]" />
          <col className="w-[92px]" />
          <col className="w-[62px]" />
          <col className="w-[172px]" />
          <col className="w-[78px]" />
        </colgroup>
        <thead>
          <tr className="text-right text-[11px] text-soft">
            <th className="pb-1 text-left font-normal">move or act</th>
            <th className="pb-1 font-normal">of 100 visits</th>
            <th className="pb-1 font-normal">wait</th>
            <th className="pb-1 font-normal">9 of 10 below</th>
            <th className="pb-1 font-normal">at once</th>
            <th className="pb-1 pl-4 text-left font-normal">wait it adds to a visit</th>
            <th className="pb-1 font-normal">never used</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const was = before.get(row.key);
            const change = row.wait && was?.wait ? row.wait.value - was.wait.value : 0;
            return (
              <tr
                key={row.key}
                className={`border-t border-line text-right align-top ${row.route === route ? 'bg-band' : 'hover:bg-band'}`}
              >
                <th className="py-1 pr-2 text-left font-normal">
                  <button
                    type="button"
                    className="block w-full truncate text-left hover:underline"
                    title="Play it as a visit"
                    onClick={() => onPlay(row)}
                  >
                    {WORDS[row.kind]} <span className="font-medium">{row.name}</span>
                  </button>
                  <button
                    type="button"
                    className={`block min-h-6 max-w-full truncate text-[11px] hover:text-ink hover:underline ${row.route === route ? 'font-semibold text-ink' : 'text-soft'}`}
                    title="Its visitors"
                    aria-pressed={row.route === route}
                    onClick={() => onRoute(row.route === route ? null : row.route)}
                  >
                    on {row.route}
                  </button>
                </th>
                <td className="py-1">{often(row.perVisit)}</td>
                <td className="py-1">
                  {row.wait ? time(row.wait.value) : 'never'}
                  {row.wait && row.wait.error >= 1 ? (
                    <span className="text-[11px] text-soft"> ±{Math.round(row.wait.error)}</span>
                  ) : null}
                  {Math.abs(change) >= 1 ? (
                    <span className="block text-[11px] leading-tight">
                      <Change value={change} format={time} />
                    </span>
                  ) : null}
                </td>
                <td className="py-1">{row.most === null ? <Unknown /> : time(row.most)}</td>
                <td className="py-1">{row.atOnce === null ? <Unknown /> : percent(row.atOnce)}</td>
                <td className="py-1 pl-4">
                  <span className="flex items-center gap-2">
                    <span className="h-2 bg-on-demand" style={{ width: Math.max(1, (cost(row) / most) * BAR) }} />
                    {time(cost(row))}
                  </span>
                </td>
                <td className="py-1">{row.unused >= 1 ? size(row.unused) : '–'}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length === 0 ? (
        <p className="text-soft">
          Nobody does anything after the landing. Say at the right where people go from each route.
        </p>
      ) : null}
      <h2 className="mt-6 mb-1 font-semibold">Landings</h2>
      <ul className="grid max-w-2xl grid-cols-2 gap-x-8">
        {now.starts.map((s) => {
          const was = baseline?.starts.find((b) => b.route === s.route)?.wait ?? s.wait;
          return (
            <li key={s.route} className="flex items-baseline gap-2 border-t border-line py-1">
              <span className="min-w-0 flex-1 truncate">{s.route}</span>
              <span className="text-soft">{percent(s.share)}</span>
              <span className="w-16 text-right">{time(s.wait)}</span>
              <span className="w-16 text-right text-[11px]">
                {Math.abs(s.wait - was) >= 1 ? <Change value={s.wait - was} format={time} /> : null}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-[11px] text-soft">
        until the page shows; waits are means over the conditions at the right
      </p>
    </>
  );
}

const WORDS = { move: 'goes to', act: 'opens', scroll: 'scrolls to' } as const;

function often(perVisit: number): string {
  const of100 = perVisit * 100;
  return of100 >= 10 ? String(Math.round(of100)) : of100.toFixed(1);
}

function Unknown() {
  return (
    <span className="text-soft" title="too rare among the played visits">
      –<span className="sr-only">too rare among the played visits</span>
    </span>
  );
}
