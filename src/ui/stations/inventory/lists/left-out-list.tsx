import type { Unresolved } from '../../../../core/snapshot/types.ts';

const MOST = 300;

/** Imports that are not followed on purpose, by their reason. */
export function LeftOutList({ imports }: { imports: Unresolved[] }) {
  const reasons = new Map<string, Unresolved[]>();
  for (const u of imports) reasons.set(u.reason, [...(reasons.get(u.reason) ?? []), u]);
  return (
    <ul>
      {[...reasons].slice(0, MOST).map(([reason, own]) => (
        <li key={reason} className="border-b border-line py-1.5">
          <details open={reasons.size === 1 && own.length < 20}>
            <summary className="cursor-pointer">
              <span className="font-medium">{own.length}</span> <span className="text-soft">{reason}</span>
            </summary>
            <ul className="mt-1 ml-4">
              {own.slice(0, MOST).map((u) => (
                <li key={`${u.from}:${u.line} ${u.specifier}`}>
                  {u.specifier}{' '}
                  <span className="text-soft">
                    {u.from}, line {u.line}
                  </span>
                </li>
              ))}
              {own.length > MOST ? <li className="text-soft">and {own.length - MOST} more</li> : null}
            </ul>
          </details>
        </li>
      ))}
    </ul>
  );
}
