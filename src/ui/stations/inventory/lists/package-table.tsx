'use client';

import type { PackageRow, Sizes } from '../../../../core/inventory/inventory.ts';
import { size } from '../../../parts/format.ts';
import { travels } from './travels.ts';

/** Packages, heaviest first, with their versions and where they travel. */
export function PackageTable({
  packages,
  routes,
  kind,
}: {
  packages: PackageRow[];
  routes: number;
  kind: keyof Sizes;
}) {
  if (packages.length === 0) return <p className="text-soft">The app uses no packages.</p>;
  return (
    <table className="w-full">
      <tbody>
        {packages.map((p) => (
          <tr key={p.name} className="hover:bg-band">
            <td className="py-[3px] font-medium">{p.name}</td>
            <td className={p.versions.length > 1 ? 'text-worse' : 'text-soft'}>
              {p.versions.length > 1 ? `${p.versions.length} versions: ` : ''}
              {p.versions.map((v) => v ?? 'no version').join(', ')}
            </td>
            <td className="text-right text-soft">
              {p.modules} {p.modules === 1 ? 'module' : 'modules'}
            </td>
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
