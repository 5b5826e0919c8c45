'use client';

import { useState } from 'react';
import type { Sizes } from '../../../core/inventory/inventory.ts';
import type { FullInventory } from '../../../worker/views.ts';
import { Pills } from '../../parts/pills.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { Finder } from './finder.tsx';
import { HeavyLists } from './heavy-lists.tsx';
import { LeakList } from './leak-list.tsx';
import { NoticeList } from './notice-list.tsx';
import { RoutePackages } from './route-packages.tsx';
import { RouteShares } from './route-shares.tsx';
import { WhereaboutsSheet } from './whereabouts-sheet.tsx';

const KINDS: (keyof Sizes)[] = ['compressed', 'minified', 'source'];

/** What each route needs at start, what is in the wrong start, what is heavy, and why it is there. */
export function ArrivesPage({ inventory }: { inventory: FullInventory }) {
  const [kind, setKind] = useState<keyof Sizes>('compressed');
  const [module, setModule] = useState<string | null>(null);
  return (
    <StationGrid id="arrives" aside={320}>
      <div className="min-h-0 min-w-0 overflow-y-auto px-4 pt-3 pb-6">
        <NoticeList notices={inventory.notices} />
        <LeakList leaks={inventory.leaks} />
        <div className="mb-2 flex items-start justify-between gap-4">
          <div>
            <h1 className="text-[15px] font-semibold">What each route needs at start</h1>
            <p className="text-soft">
              script and style that the landing asks for because its first screen needs them; “not used” is what comes
              with it all the same
            </p>
          </div>
          <Pills legend="Sizes" options={KINDS} chosen={kind} onChoose={setKind} />
        </div>
        {inventory.routes.length === 0 ? (
          <p className="text-soft">
            No routes yet: none were found in the code. Under “Routes and parts” one can be added by its address and
            page module.
          </p>
        ) : (
          <RouteShares
            routes={inventory.routes}
            kind={kind}
            onChoose={() => {
              setModule(null);
            }}
          />
        )}
        <HeavyLists inventory={inventory} kind={kind} chosen={module} onChoose={setModule} />
      </div>
      <Aside label="Details">
        <Finder modules={inventory.modules} onChoose={setModule} />
        {module === null ? (
          <RoutePackages routes={inventory.routes} kind={kind} />
        ) : (
          <>
            <button type="button" className="mb-2 text-soft underline hover:text-ink" onClick={() => setModule(null)}>
              back to the route
            </button>
            <WhereaboutsSheet path={module} />
          </>
        )}
      </Aside>
    </StationGrid>
  );
}
