'use client';

import { FindingsHere } from '../../parts/findings-here.tsx';
import { Message } from '../../parts/message.tsx';
import { PageTabs } from '../../parts/page-tabs.tsx';
import { useFindingsAt } from '../../state/advice.ts';
import { useAmendments } from '../../state/amendments.ts';
import { useStationPage } from '../../state/station-page.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { ArrivesPage } from './arrives-page.tsx';
import { RoutesPage } from './routes/routes-page.tsx';
import { ModulesContext } from './routes/use-modules.ts';
import { useInventory } from './use-inventory.ts';

const NO_MODULES: never[] = [];

/** What was read: what each route's start is made of and why, and the routes and parts themselves. */
export function InventoryStation() {
  const { found: inventory, error } = useInventory();
  const { confirmed } = useAmendments();
  const opened = useStationPage('inventory');
  const none = useWorkbench((s) => s.app?.routes.length === 0);
  if (error) return <Message title="The inventory can’t be made">{error}</Message>;
  return (
    <ModulesContext.Provider value={inventory?.modules ?? NO_MODULES}>
      <PageTabs
        label="Inventory"
        beside={<Beside />}
        first={none ? 'routes' : 'arrives'}
        {...opened}
        pages={[
          {
            id: 'arrives',
            words: 'What arrives',
            content: inventory ? (
              <ArrivesPage inventory={inventory} />
            ) : (
              <Message title="Taking stock">Following every route’s imports.</Message>
            ),
          },
          { id: 'routes', words: `Routes and parts${confirmed ? '' : ' (a proposal)'}`, content: <RoutesPage /> },
        ]}
      />
    </ModulesContext.Provider>
  );
}

function Beside() {
  return <FindingsHere {...useFindingsAt('inventory')} />;
}
