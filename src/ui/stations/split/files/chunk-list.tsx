'use client';

import { useState } from 'react';
import { counted } from '../../../../core/text/counted.ts';
import type { ChunkRow } from '../../../../worker/views.ts';
import { Few } from '../../../parts/few.tsx';
import { TextField } from '../../../parts/field.tsx';
import { size } from '../../../parts/format.ts';
import { OrderHead, useOrder, type Values } from '../../../parts/order.tsx';
import { chosenChunk } from '../../../state/selection.ts';
import { useWorkbench } from '../../../state/workbench.ts';

const MOST = 300;

type Column = 'name' | 'kind' | 'modules' | 'shared' | 'size';
const VALUES: Values<ChunkRow, Column> = {
  name: (c) => c.name,
  kind: (c) => c.real ?? c.kind,
  modules: (c) => c.modules,
  shared: (c) => c.neededBy,
  size: (c) => c.compressed,
};
const NONE: readonly ChunkRow[] = [];

/** The chunks of the entry, in the order that is chosen; one is chosen by a click, and named in its place. */
export function ChunkList({ chunks }: { chunks: readonly ChunkRow[] | null }) {
  const decide = useWorkbench((s) => s.decide);
  const choose = useWorkbench((s) => s.choose);
  const chosen = useWorkbench((s) => chosenChunk(s.selection));
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const { sorted, head } = useOrder<ChunkRow, Column>('chunks', chunks ?? NONE, VALUES, 'size');
  const found =
    wanted === '' ? sorted : sorted.filter((c) => `${c.name} ${c.real ?? c.kind}`.toLowerCase().includes(wanted));
  return (
    <>
      <div className="mt-5 mb-1 flex items-center justify-between gap-3">
        <h2 className="font-semibold">{chunks ? counted(chunks.length, 'chunk') : 'Chunks'}</h2>
        <input
          type="search"
          aria-label="Chunks whose name holds"
          placeholder="name or kind"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="w-44 rounded border border-line bg-paper px-2 py-1"
        />
      </div>
      <table className="w-full table-fixed">
        <thead>
          <tr>
            <OrderHead of="name" words="chunk" {...head} className="w-[46%] pl-2 text-left" />
            <OrderHead of="kind" words="kind" {...head} className="text-left" />
            <OrderHead of="modules" words="modules" {...head} className="text-right" />
            <OrderHead of="shared" words="shared by" {...head} className="text-right" />
            <OrderHead of="size" words="compressed" {...head} className="w-24 pr-1 text-right" />
          </tr>
        </thead>
        <tbody>
          <Few rows={found} most={MOST} as="tr" columns={5} words="more, further down in this order">
            {(c) => (
              <tr
                key={c.id}
                aria-current={c.id === chosen ? 'true' : undefined}
                className={`border-t border-line ${c.id === chosen ? 'bg-mark' : 'hover:bg-band'}`}
                onClick={() => choose({ selection: { kind: 'chunk', id: c.id } })}
              >
                <td>
                  <TextField
                    bare
                    label={`name of ${c.name}`}
                    value={c.name}
                    check={(name) => (name === '' || name.length > 80 ? 'Give 1 to 80 letters.' : null)}
                    onTake={(name) => decide([{ kind: 'chunk name', chunk: c.id, name }])}
                  />
                </td>
                <td className="truncate text-soft" title={c.real ?? c.kind}>
                  {c.real ?? c.kind}
                </td>
                <td className="text-right text-soft">{c.modules.toLocaleString('en')}</td>
                <td className="text-right text-soft">
                  {c.neededBy === 1 ? 'not shared' : counted(c.neededBy, 'start')}
                </td>
                <td className="pr-1 text-right">{size(c.compressed)}</td>
              </tr>
            )}
          </Few>
        </tbody>
      </table>
      {chunks && found.length === 0 ? <p className="text-soft">No chunk of that name or kind.</p> : null}
    </>
  );
}
