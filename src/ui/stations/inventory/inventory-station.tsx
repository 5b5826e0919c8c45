'use client';

import { Tabs } from 'radix-ui';
import { useState } from 'react';
import type { StationId } from '../../frame/station-list.ts';
import { Message } from '../../parts/message.tsx';
import { useAmendments } from '../../state/amendments.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { ArrivesPage } from './arrives-page.tsx';
import { RoutesPage } from './routes/routes-page.tsx';
import { ModulesContext } from './routes/use-modules.ts';
import { useInventory } from './use-inventory.ts';

const TAB =
  'border-b-2 border-transparent px-1 pt-2.5 pb-1.5 text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';
const NO_MODULES: never[] = [];

/** What was read: what each route's start is made of and why, and the routes and parts themselves. */
export function InventoryStation({ onGo }: { onGo: (station: StationId) => void }) {
  const { inventory, error } = useInventory();
  const { confirmed } = useAmendments();
  const none = useWorkbench((s) => s.app?.routes.length === 0);
  const [page, setPage] = useState(none ? 'routes' : 'arrives');
  if (error) return <Message title="The inventory can’t be made">{error}</Message>;
  return (
    <ModulesContext.Provider value={inventory?.modules ?? NO_MODULES}>
      <Tabs.Root value={page} onValueChange={setPage} className="flex h-full min-h-0 flex-col">
        <Tabs.List aria-label="Inventory" className="flex gap-5 border-b border-line px-4">
          <Tabs.Trigger value="arrives" className={TAB}>
            What arrives
          </Tabs.Trigger>
          <Tabs.Trigger value="routes" className={TAB}>
            Routes and parts{confirmed ? '' : ' (a proposal)'}
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="arrives" className="min-h-0 flex-1">
          {inventory ? (
            <ArrivesPage inventory={inventory} onGo={onGo} />
          ) : (
            <Message title="Taking stock">Following every route’s imports.</Message>
          )}
        </Tabs.Content>
        <Tabs.Content value="routes" className="min-h-0 flex-1">
          <RoutesPage />
        </Tabs.Content>
      </Tabs.Root>
    </ModulesContext.Provider>
  );
}
