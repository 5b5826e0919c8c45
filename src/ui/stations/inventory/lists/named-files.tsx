import type { FullInventory } from '../../../../worker/views.ts';
import { Few } from '../../../parts/few.tsx';
import { size } from '../../../parts/format.ts';

const MOST = 60;

/** Files of an output whose maps name their sources without holding them. */
export function NamedFiles({ files }: { files: FullInventory['named'] }) {
  return (
    <>
      <p className="mb-1 text-soft">
        The maps of these files name what is in them, but don’t hold the sources: what imports what can’t be told.
      </p>
      {files.map((f) => (
        <details key={f.path} className="border-b border-line py-1.5">
          <summary className="flex cursor-pointer justify-between">
            <span className="font-medium">{f.path}</span>
            <span className="pr-1.5">{size(f.bytes)}</span>
          </summary>
          <ul className="mt-1 ml-4">
            <Few rows={f.contents} most={MOST} as="li" words="smaller ones">
              {(c) => (
                <li key={c.source} className="flex justify-between gap-4">
                  <span className="truncate" title={c.source}>
                    {c.source}
                  </span>
                  <span className="shrink-0 pr-1.5 text-soft">{size(c.bytes)}</span>
                </li>
              )}
            </Few>
          </ul>
        </details>
      ))}
    </>
  );
}
