import type { Effect } from '../../../core/advise/types.ts';
import { Change } from '../../parts/change.tsx';
import { Few } from '../../parts/few.tsx';
import { percent, size, time } from '../../parts/format.ts';

const MOST = 8;

/** What a change does to landings and waits. */
export function EffectTables({ effect }: { effect: Effect }) {
  return (
    <>
      {effect.routes.length > 0 ? (
        <table className="w-full">
          <thead>
            <tr className="text-right text-[11px] text-soft">
              <th className="text-left font-normal">landing on</th>
              <th className="font-normal">first content</th>
              <th className="font-normal">interactive</th>
              <th className="font-normal">start</th>
            </tr>
          </thead>
          <tbody>
            <Few rows={effect.routes} most={MOST} as="tr" columns={4} words="more landings">
              {(r) => (
                <tr key={r.pattern} className="border-t border-line text-right align-top">
                  <th className="max-w-28 py-0.5 text-left font-normal">
                    <span className="block truncate" title={r.pattern}>
                      {r.pattern}
                    </span>
                    <span className="text-[11px] text-soft">{percent(r.share)} of landings</span>
                  </th>
                  <td className="py-0.5">
                    <Change value={r.firstContent} format={time} />
                  </td>
                  <td className="py-0.5">
                    <Change value={r.interactive} format={time} />
                  </td>
                  <td className="py-0.5">
                    <Change value={r.startBytes} format={size} />
                  </td>
                </tr>
              )}
            </Few>
          </tbody>
        </table>
      ) : null}
      {effect.waits.length > 0 ? (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Waits later</h3>
          <ul>
            <Few rows={effect.waits} most={MOST} as="li" words="more waits">
              {(w) => (
                <li key={w.key} className="flex justify-between gap-3 border-t border-line py-0.5">
                  <span className="min-w-0 truncate" title={w.key}>
                    {w.name} <span className="text-soft">on {w.route}</span>
                  </span>
                  <span className="shrink-0">
                    <Change value={w.change} format={time} />
                  </span>
                </li>
              )}
            </Few>
          </ul>
        </>
      ) : null}
    </>
  );
}
