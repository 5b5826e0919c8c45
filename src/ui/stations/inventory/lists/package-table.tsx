'use client';

import type { PackageRow, Sizes } from '../../../../core/inventory/inventory.ts';
import { size } from '../../../parts/format.ts';
import { copying, openRowMenu } from '../../../parts/menu/row-menu.ts';
import { OrderHead, useOrder } from '../../../parts/order.tsx';
import { travels } from './travels.ts';

type Column = 'package' | 'modules' | 'size' | 'starts';

/** Packages with their versions and where they travel, in the order that is chosen; heaviest first. */
export function PackageTable({
  packages,
  routes,
  kind,
}: {
  packages: PackageRow[];
  routes: number;
  kind: keyof Sizes;
}) {
  const { sorted, head } = useOrder<PackageRow, Column>(
    'packages',
    packages,
    {
      package: (p) => p.name,
      modules: (p) => p.modules,
      size: (p) => p.sizes[kind],
      starts: (p) => p.routes.length,
    },
    'size',
  );
  const heading = (of: Column, words: string, className: string) => (
    <OrderHead of={of} words={words} {...head} className={className} />
  );
  if (packages.length === 0) return <p className="text-soft">The app uses no packages.</p>;
  return (
    <table className="w-full">
      <thead>
        <tr>
          {heading('package', 'package', 'text-left')}
          <th scope="col" className="text-left font-normal text-soft">
            version
          </th>
          {heading('modules', 'modules', 'text-right')}
          {heading('size', 'size', 'text-right')}
          {heading('starts', 'travels in', 'pr-1.5 text-right')}
        </tr>
      </thead>
      <tbody>
        {sorted.map((p) => (
          <tr
            key={p.name}
            onContextMenu={(event) =>
              openRowMenu(event, event.currentTarget, {
                of: p.name,
                groups: [
                  [
                    copying('the name', p.name),
                    copying('its size', size(p.sizes[kind])),
                    copying('what of it is in each start', sharesOf(p, kind)),
                  ],
                ],
              })
            }
            className="hover:bg-band"
          >
            <td className="py-[3px] font-medium">{p.name}</td>
            <td className={p.versions.length > 1 ? 'text-worse' : 'text-soft'}>
              {p.versions.length > 1 ? `${p.versions.length} versions: ` : ''}
              {p.versions.map((v) => v ?? 'no version').join(', ')}
            </td>
            <td className="text-right text-soft">{p.modules}</td>
            <td className="w-24 text-right">{size(p.sizes[kind])}</td>
            <td className="w-32 pr-1.5 text-right text-soft" title={sharesOf(p, kind)}>
              {travels(p.routes.length, routes)}
              {p.routes.length > 0 ? <span className="block text-[11px]">{mostOf(p, kind)}</span> : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What of a package is in the start of each route. */
function sharesOf({ routes }: PackageRow, kind: keyof Sizes): string {
  return routes.map((r) => `${r.pattern}: ${size(r.sizes[kind])}`).join('\n');
}

function mostOf({ routes }: PackageRow, kind: keyof Sizes): string {
  const all = routes.map((r) => r.sizes[kind]);
  const [least, most] = [size(Math.min(...all)), size(Math.max(...all))];
  return least === most ? `${most} there` : `${least} to ${most} there`;
}
