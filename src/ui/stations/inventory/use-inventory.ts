'use client';

import { useEffect, useState } from 'react';
import type { Whereabouts } from '../../../core/inventory/whereabouts.ts';
import type { FullInventory } from '../../../worker/analyst.ts';
import { analyst } from '../../../worker/client.ts';
import { conditionsOf, usePlan, useWorkbench } from '../../state/workbench.ts';

/** The inventory under the present plan and conditions; the last one stays until the next is there. */
export function useInventory(): { inventory: FullInventory | null; error: string | null } {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const [state, setState] = useState<{ inventory: FullInventory | null; error: string | null }>({
    inventory: null,
    error: null,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) is another inventory
  useEffect(() => {
    let current = true;
    analyst()
      .inventory(plan, conditionsOf({ linkId, deviceId, cache }))
      .then(
        (inventory) => current && setState({ inventory, error: null }),
        (error: Error) => current && setState({ inventory: null, error: error.message }),
      );
    return () => {
      current = false;
    };
  }, [plan, app, linkId, deviceId, cache]);
  return state;
}

/** Where a module is; an error in words when that can't be told. */
export function useWhereabouts(path: string | null): Whereabouts | string | null {
  const plan = usePlan();
  const [found, setFound] = useState<Whereabouts | string | null>(null);
  useEffect(() => {
    setFound(null);
    if (path === null) return;
    let current = true;
    analyst()
      .whereabouts(plan, path)
      .then(
        (next) => current && setFound(next ?? 'This module is not in the snapshot any more.'),
        (error: Error) => current && setFound(error.message),
      );
    return () => {
      current = false;
    };
  }, [plan, path]);
  return found;
}
