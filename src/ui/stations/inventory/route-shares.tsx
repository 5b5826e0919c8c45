'use client';

import type { RouteRow, Sizes } from '../../../core/inventory/inventory.ts';
import { MEASURES } from '../../../core/vocabulary/measures.ts';
import { size, time } from '../../parts/format.ts';
import { OrderHead, useOrder } from '../../parts/order.tsx';
import { useWorkbench } from '../../state/workbench.ts';

const SHARES = [
  { field: 'every', words: 'every route', short: 'every', fill: 'var(--ink)' },
  { field: 'some', words: 'some routes', short: 'some', fill: 'url(#share-some)' },
  { field: 'only', words: 'only this route', short: 'only this', fill: 'var(--needed)' },
] as const;

type Column =
  | 'route'
  | 'start'
  | 'unusedAtStart'
  | 'otherScripts'
  | 'alsoFetched'
  | 'requests'
  | 'hops'
  | 'interactive';

const BAR = 190;
/** From this share on starts look the same. */
const NEARLY_ALL = 0.97;

/** Routes with their start in three shares; sorted by any column. */
export function RouteShares({
  routes,
  kind,
  onChoose,
}: {
  routes: RouteRow[];
  kind: keyof Sizes;
  onChoose: () => void;
}) {
  const route = useWorkbench((s) => s.route);
  const choose = useWorkbench((s) => s.choose);
  const whole = (r: RouteRow) => r.only[kind] + r.some[kind] + r.every[kind];
  const { sorted, head } = useOrder<RouteRow, Column>(
    'route shares',
    routes,
    {
      route: (r) => r.pattern,
      start: whole,
      unusedAtStart: (r) => r.unusedAtStart,
      otherScripts: (r) => r.otherScripts,
      alsoFetched: (r) => r.alsoFetched,
      requests: (r) => r.requests,
      hops: (r) => r.hops,
      interactive: (r) => r.interactive,
    },
    'start',
  );
  const heaviest = Math.max(1, ...routes.map(whole));
  const others = routes.some((r) => r.otherScripts > 0);
  const also = routes.some((r) => r.alsoFetched > 0);
  const heading = (column: Column, words: string, right = true) => (
    <OrderHead of={column} words={words} {...head} className={right ? 'pl-3 text-right' : 'text-left'} />
  );
  return (
    <>
      <svg width="0" height="0" className="absolute" aria-hidden="true">
        <title>textures</title>
        <defs>
          <pattern id="share-some" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="4" height="4" fill="var(--needed-pale)" />
            <line x1="0" y1="0" x2="0" y2="4" stroke="var(--needed)" strokeWidth="1.500" />
          </pattern>
        </defs>
      </svg>
      {routes.length > 1 && routes.every((r) => r.every[kind] >= whole(r) * NEARLY_ALL) ? (
        <p className="mb-1 text-soft">
          All bars are alike because nearly everything is in every start: what one route needs, all of them pay for.
          Deferring pages, or what stands behind actions, tells them apart.
        </p>
      ) : null}
      <table className="w-full">
        <thead>
          <tr>
            {heading('route', 'route', false)}
            <th scope="col" className="text-left font-normal">
              <span className="flex gap-2.5 text-soft">
                {SHARES.map((s) => (
                  <span key={s.field} className="flex items-center gap-1.5">
                    <svg width="12" height="10" aria-hidden="true">
                      <title>{s.words}</title>
                      <rect width="12" height="10" fill={s.fill} />
                    </svg>
                    {s.short}
                  </span>
                ))}
              </span>
            </th>
            {heading('start', MEASURES['start bytes'].name)}
            <th scope="col" className="pl-3 text-right whitespace-nowrap font-normal text-soft">
              style
            </th>
            {heading('unusedAtStart', 'not used')}
            {others ? heading('otherScripts', MEASURES['other scripts'].name) : null}
            {also ? heading('alsoFetched', MEASURES['also fetched'].name) : null}
            {heading('requests', MEASURES.requests.name)}
            {heading('hops', MEASURES.hops.name)}
            {heading('interactive', MEASURES.interactive.name)}
          </tr>
        </thead>
        <tbody>
          {sorted.map((r) => (
            <tr
              key={r.pattern}
              className={`cursor-pointer ${r.pattern === route ? 'bg-mark' : 'hover:bg-band'}`}
              onClick={() => choose({ route: r.pattern })}
            >
              <td className="max-w-44 truncate py-[3px] pl-1.5">
                <button
                  type="button"
                  title={r.pattern}
                  onClick={() => {
                    choose({ route: r.pattern });
                    onChoose();
                  }}
                  className={r.pattern === route ? 'font-semibold' : 'hover:underline'}
                >
                  {r.pattern}
                </button>
              </td>
              <td>
                <Bar row={r} kind={kind} heaviest={heaviest} />
              </td>
              <td className="text-right whitespace-nowrap font-medium">{size(whole(r))}</td>
              <td className="pl-3 text-right whitespace-nowrap text-soft">{size(r.style[kind])}</td>
              <td className="text-right whitespace-nowrap text-soft">{size(r.unusedAtStart)}</td>
              {others ? <td className="text-right whitespace-nowrap text-soft">{size(r.otherScripts)}</td> : null}
              {also ? <td className="text-right whitespace-nowrap text-soft">{size(r.alsoFetched)}</td> : null}
              <td className="text-right whitespace-nowrap">{r.requests}</td>
              <td className="text-right whitespace-nowrap">{r.hops}</td>
              <td className="pr-1.5 text-right whitespace-nowrap">{time(r.interactive)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Bar({ row, kind, heaviest }: { row: RouteRow; kind: keyof Sizes; heaviest: number }) {
  let x = 0;
  return (
    <svg
      width={BAR}
      height="14"
      role="img"
      aria-label={SHARES.map((s) => `${s.words} ${size(row[s.field][kind])}`).join(', ')}
    >
      {SHARES.map((s) => {
        const from = x;
        const width = (row[s.field][kind] / heaviest) * BAR;
        x += width;
        return (
          <rect key={s.field} x={from} y="1" width={width} height="12" fill={s.fill}>
            <title>{`${s.words}: ${size(row[s.field][kind])}`}</title>
          </rect>
        );
      })}
    </svg>
  );
}
