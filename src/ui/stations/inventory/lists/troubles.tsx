import type { Failed, Unresolved } from '../../../../core/snapshot/types.ts';

/** What couldn't be read, with the place and what to do about it. */
export function Troubles({ unresolved, failed }: { unresolved: Unresolved[]; failed: Failed[] }) {
  if (unresolved.length + failed.length === 0)
    return <p className="text-soft">Every import was found and every module could be read.</p>;
  return (
    <>
      {unresolved.length > 0 ? (
        <p className="mb-1 text-soft">
          An import that leads nowhere is missing from every figure. Install the app’s packages, or mend the path, and
          read the folder again from the project’s menu.
        </p>
      ) : null}
      <ul>
        {failed.map((f) => (
          <li key={`${f.path}:${f.line} ${f.message}`} className="border-b border-line py-1">
            <span className="font-medium break-all">
              {f.path}:{f.line}
            </span>{' '}
            <span className="text-soft">{f.message}</span>
          </li>
        ))}
        {unresolved.map((u) => (
          <li key={`${u.from}:${u.line} ${u.specifier}`} className="border-b border-line py-1">
            <span className="font-medium break-all">
              {u.from}:{u.line}
            </span>{' '}
            imports {u.specifier} <span className="text-soft">{u.reason}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
