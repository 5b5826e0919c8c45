import type { Unresolved } from '../../../../core/snapshot/types.ts';
import { Few } from '../../../parts/few.tsx';

const MOST = 300;

/** Imports that are not followed on purpose, by their reason. */
export function LeftOutList({ imports }: { imports: Unresolved[] }) {
  const reasons = new Map<string, Unresolved[]>();
  for (const u of imports) reasons.set(u.reason, [...(reasons.get(u.reason) ?? []), u]);
  return (
    <ul>
      <Few rows={[...reasons]} most={MOST} as="li" words="more reasons">
        {([reason, own]) => (
          <li key={reason} className="border-b border-line py-1.5">
            <details open={reasons.size === 1 && own.length < 20}>
              <summary className="cursor-pointer">
                <span className="font-medium">{own.length}</span> <span className="text-soft">{reason}</span>
              </summary>
              <ul className="mt-1 ml-4">
                <Few rows={own} most={MOST} as="li">
                  {(u) => (
                    <li key={`${u.from}:${u.line} ${u.specifier}`}>
                      {u.specifier}{' '}
                      <span className="text-soft">
                        {u.from}, line {u.line}
                      </span>
                    </li>
                  )}
                </Few>
              </ul>
            </details>
          </li>
        )}
      </Few>
    </ul>
  );
}
