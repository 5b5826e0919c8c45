'use client';

import { useState } from 'react';
import type { RouteRow, Sizes } from '../../../core/inventory/inventory.ts';
import { counted } from '../../../core/text/counted.ts';
import { Few } from '../../parts/few.tsx';
import { PickField } from '../../parts/field.tsx';
import { size } from '../../parts/format.ts';
import { useWorkbench } from '../../state/workbench.ts';

const BAR = 96;
const NOBODY = ':none';
const MOST = 24;

interface Line {
  name: string | null;
  here: number;
  there: number;
}

/** What the chosen route's start is made of, package by package, beside another route's where one is chosen. */
export function RoutePackages({ routes, kind }: { routes: RouteRow[]; kind: keyof Sizes }) {
  const pattern = useWorkbench((s) => s.route);
  const [other, setOther] = useState(NOBODY);
  const here = routes.find((r) => r.pattern === pattern);
  if (!here) return <p className="text-soft">Choose a route to see what its start is made of.</p>;
  const there = routes.find((r) => r.pattern === other && r.pattern !== pattern);
  const lines = linesOf(here, there, kind);
  const heaviest = Math.max(1, ...lines.map((l) => Math.max(l.here, l.there)));
  const sum = (side: 'here' | 'there') => lines.reduce((all, l) => all + l[side], 0);
  return (
    <section>
      <h2 className="text-[15px] font-semibold break-all">{here.pattern} by package</h2>
      <div className="mt-2 mb-3">
        <PickField
          label="Beside"
          value={there ? other : NOBODY}
          options={[
            { value: NOBODY, label: 'no other route' },
            ...routes.filter((r) => r.pattern !== pattern).map((r) => ({ value: r.pattern, label: r.pattern })),
          ]}
          onTake={setOther}
        />
      </div>
      <table className="w-full table-fixed">
        {there ? (
          <thead className="text-soft">
            <tr>
              <th className="text-left font-normal">package</th>
              <th className="w-[72px] truncate pl-2 text-right font-normal" title={here.pattern}>
                {here.pattern}
              </th>
              <th className="w-[72px] truncate pl-2 text-right font-normal" title={there.pattern}>
                {there.pattern}
              </th>
            </tr>
          </thead>
        ) : null}
        <tbody>
          <Few rows={lines} most={MOST} as="tr" columns={there ? 3 : 2} words="smaller ones">
            {(l) => (
              <tr key={l.name ?? ''}>
                <td className="py-[3px] pr-2">
                  <span className="block truncate" title={l.name ?? 'the app’s own code'}>
                    {l.name ?? <em className="not-italic text-soft">the app’s own code</em>}
                  </span>
                  <Bars line={l} heaviest={heaviest} two={there !== undefined} />
                </td>
                <td className="w-[72px] py-[3px] text-right align-top font-medium">
                  {l.here === 0 ? '–' : size(l.here)}
                </td>
                {there ? (
                  <td className="w-[72px] py-[3px] text-right align-top">{l.there === 0 ? '–' : size(l.there)}</td>
                ) : null}
              </tr>
            )}
          </Few>
          <tr className="border-t border-line">
            <td className="py-1 text-soft">all</td>
            <td className="text-right font-semibold">{size(sum('here'))}</td>
            {there ? <td className="text-right font-semibold">{size(sum('there'))}</td> : null}
          </tr>
        </tbody>
      </table>
      {there ? (
        <p className="mt-3 text-soft">
          {difference(sum('here') - sum('there'), there.pattern)} {here.requests} against{' '}
          {counted(there.requests, 'request')}, {here.hops} against {counted(there.hops, 'hop')}.
        </p>
      ) : null}
    </section>
  );
}

function difference(bytes: number, other: string): string {
  if (bytes === 0) return `As much as ${other}.`;
  return `${size(Math.abs(bytes))} ${bytes > 0 ? 'more' : 'less'} than ${other}.`;
}

function linesOf(here: RouteRow, there: RouteRow | undefined, kind: keyof Sizes): Line[] {
  const lines = new Map<string | null, Line>();
  const add = (row: RouteRow | undefined, side: 'here' | 'there') => {
    for (const { name, sizes } of row?.packages ?? []) {
      const line = lines.get(name) ?? { name, here: 0, there: 0 };
      line[side] = sizes[kind];
      lines.set(name, line);
    }
  };
  add(here, 'here');
  add(there, 'there');
  return [...lines.values()].sort((a, b) => Math.max(b.here, b.there) - Math.max(a.here, a.there));
}

function Bars({ line, heaviest, two }: { line: Line; heaviest: number; two: boolean }) {
  return (
    <svg width={BAR} height={two ? 9 : 5} aria-hidden="true" className="block">
      <title>share</title>
      <rect width={(line.here / heaviest) * BAR} height="4" y="0" fill="var(--needed)" />
      {two ? (
        <rect width={(line.there / heaviest) * BAR} height="3" y="5.500" fill="none" stroke="var(--needed)" />
      ) : null}
    </svg>
  );
}
