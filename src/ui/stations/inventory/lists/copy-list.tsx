import type { CopyRow } from '../../../../core/inventory/inventory.ts';
import { counted } from '../../../../core/text/counted.ts';
import { Few } from '../../../parts/few.tsx';
import { size } from '../../../parts/format.ts';
import { OrderHead, useOrder } from '../../../parts/order.tsx';

const MOST = 200;

type Column = 'module' | 'files' | 'extra';

/** Modules that lie in more than one file, in the order that is chosen; what costs most first. */
export function CopyList({ copies, onChoose }: { copies: CopyRow[]; onChoose: (path: string) => void }) {
  const { sorted, head } = useOrder<CopyRow, Column>(
    'copies',
    copies,
    { module: (c) => c.path, files: (c) => c.files.length, extra: (c) => c.extra },
    'extra',
  );
  const extra = copies.reduce((sum, c) => sum + c.extra, 0);
  return (
    <>
      <p className="mb-1 text-soft">
        The copies beside the first add up to {size(extra)} minified. A visitor who comes by several of these files
        fetches and runs the same code again.
      </p>
      <table className="w-full table-fixed">
        <thead>
          <tr>
            <OrderHead of="module" words="module" {...head} className="w-[45%] text-left" />
            <OrderHead of="files" words="files" {...head} className="text-left" />
            <OrderHead of="extra" words="copies" {...head} className="w-20 pr-1.5 text-right" />
          </tr>
        </thead>
        <tbody>
          <Few rows={sorted} most={MOST} as="tr" columns={3} words="more, further down in this order">
            {(c) => (
              <tr key={c.path} className="hover:bg-band">
                <td className="w-[45%] truncate py-[3px]">
                  <button type="button" className="hover:underline" title={c.path} onClick={() => onChoose(c.path)}>
                    {c.path}
                  </button>
                </td>
                <td className="truncate text-soft" title={c.files.join(', ')}>
                  {counted(c.files.length, 'file')}: {c.files.join(', ')}
                </td>
                <td className="w-20 pr-1.5 text-right">{size(c.extra)}</td>
              </tr>
            )}
          </Few>
        </tbody>
      </table>
    </>
  );
}
