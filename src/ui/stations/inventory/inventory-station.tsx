'use client';

import { useState } from 'react';
import type { Sizes } from '../../../core/inventory/inventory.ts';
import type { StationId } from '../../frame/station-list.ts';
import { Message } from '../../parts/message.tsx';
import { Pill } from '../../parts/pill.tsx';
import { Finder } from './finder.tsx';
import { HeavyLists } from './heavy-lists.tsx';
import { LeakList } from './leak-list.tsx';
import { RouteShares } from './route-shares.tsx';
import { useInventory } from './use-inventory.ts';
import { WhereaboutsSheet } from './whereabouts-sheet.tsx';

const KINDS: (keyof Sizes)[] = ['compressed', 'minified', 'source'];

/** What each route needs at start, what is in the wrong start, what is heavy, and why it is there. */
export function InventoryStation({ onGo }: { onGo: (station: StationId) => void }) {
  const { inventory, error } = useInventory();
  const [kind, setKind] = useState<keyof Sizes>('compressed');
  const [module, setModule] = useState<string | null>(null);
  if (error) return <Message title="The inventory can’t be made">{error}</Message>;
  if (!inventory) return <Message title="Taking stock">Following every route’s imports.</Message>;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_320px]">
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-4 pb-6">
        <LeakList leaks={inventory.leaks} onGo={onGo} />
        <div className="mb-2 flex items-start justify-between gap-4">
          <div>
            <h1 className="text-[15px] font-semibold">What each route needs at start</h1>
            <p className="text-soft">modules in the files that the landing fetches by itself</p>
          </div>
          <fieldset className="flex shrink-0 gap-1.5">
            <legend className="sr-only">Sizes</legend>
            {KINDS.map((k) => (
              <Pill key={k} on={k === kind} onClick={() => setKind(k)}>
                {k}
              </Pill>
            ))}
          </fieldset>
        </div>
        <RouteShares routes={inventory.routes} kind={kind} />
        <HeavyLists inventory={inventory} kind={kind} chosen={module} onChoose={setModule} />
      </div>
      <aside aria-label="Details" className="min-h-0 overflow-y-auto border-l border-line px-4 py-4">
        <Finder modules={inventory.modules} onChoose={setModule} />
        <WhereaboutsSheet path={module} onGo={onGo} />
      </aside>
    </div>
  );
}
