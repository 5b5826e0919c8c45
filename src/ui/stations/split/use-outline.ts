'use client';

import type { SplitWait } from '../../../core/explain/wait.ts';
import type { Outline } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { analyst } from '../../../worker/client.ts';
import type { Explained, Preview } from '../../../worker/views.ts';
import { type Asked, useAsked } from '../../state/asked.ts';

/** The outline of the chosen route, or of a split point within it, under the present plan. */
export function useOutline(within: string | null): Asked<Outline> {
  return useAsked(({ plan, route }) => analyst().split.outline(plan, route, within), within ?? '', ['route']);
}

/** The wait for a split point before and after decisions. */
export function useWaits(
  decisions: Decision[],
  target: string,
): Asked<{ before: SplitWait | null; after: SplitWait | null }> {
  return useAsked(
    ({ plan, route, conditions }) => analyst().split.waits(plan, decisions, route, target, conditions),
    `${target} ${JSON.stringify(decisions)}`,
  );
}

/** What decisions would change, computed without making them; an error in words when that fails. */
export function usePreview(decisions: Decision[] | null): Preview | string | null {
  const wish = JSON.stringify(decisions);
  const { found, error } = useAsked(
    async ({ plan, route, conditions }) =>
      decisions === null ? null : analyst().split.preview(plan, decisions, route, conditions),
    wish,
  );
  return error ?? found;
}

/** What of a piece of code leaves the start, what stays and who keeps it; an error in words when that can't be told. */
export function useHold(decisions: Decision[], target: string): Explained | string | null {
  const { found, error } = useAsked(
    async ({ plan, route, conditions }) =>
      (await analyst().split.explain(plan, decisions, route, target, conditions)) ?? GONE,
    `${target} ${JSON.stringify(decisions)}`,
  );
  return error ?? found;
}

const GONE = 'This module is not in the snapshot any more.';
