import { inventoryOf } from '../../core/inventory/inventory.ts';
import { orderNotices } from '../../core/inventory/order-notices.ts';
import { type Whereabouts, whereabouts } from '../../core/inventory/whereabouts.ts';
import { type Plan } from '../../core/plan/types.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import type { FullInventory } from '../views.ts';
import { HeldApp } from './held-app.ts';

/** What the Inventory asks: what each start holds, and where modules are. */
export class InventoryService {
  constructor(private readonly app: HeldApp) {}

  /** What every route's start is made of. */
  inventory(plan: Plan, conditions: Conditions): FullInventory {
    const { unresolved, failed, notices, output } = this.app.get();
    const inside = output?.files.filter((f) => f.inside === 'names') ?? [];
    const named = inside.map(({ path, bytes, contents }) => ({ path, bytes: bytes.minified, contents }));
    return {
      ...inventoryOf(this.app.shipped(plan), plan, conditions),
      unresolved,
      failed,
      notices: [...notices, ...orderNotices(this.app.shipped(plan), plan)],
      named,
    };
  }

  /** Where a module is, and the import paths that put it there. */
  whereabouts(plan: Plan, path: string): Whereabouts | null {
    return whereabouts(this.app.shipped(plan), plan, path);
  }
}
