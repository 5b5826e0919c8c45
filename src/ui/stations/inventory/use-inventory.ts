'use client';

import type { Whereabouts } from '../../../core/inventory/whereabouts.ts';
import { analyst } from '../../../worker/client.ts';
import type { FullInventory } from '../../../worker/views.ts';
import { type Asked, useAsked } from '../../state/asked.ts';

/** The inventory under the present plan and conditions. */
export function useInventory(): Asked<FullInventory> {
  return useAsked(({ plan, conditions }) => analyst().inventory.inventory(plan, conditions), '', ['conditions']);
}

/** Where a module is; an error in words when that can't be told. */
export function useWhereabouts(path: string | null): Whereabouts | string | null {
  const { found, error } = useAsked(
    async ({ plan }) => (path === null ? null : ((await analyst().inventory.whereabouts(plan, path)) ?? GONE)),
    path ?? '',
  );
  return error ?? found;
}

const GONE = 'This module is not in the snapshot any more.';
