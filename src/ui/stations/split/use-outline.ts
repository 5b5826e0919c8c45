'use client';

import { useEffect, useState } from 'react';
import type { Outline } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import type { Explained, Preview } from '../../../worker/analyst.ts';
import { analyst } from '../../../worker/client.ts';
import { conditionsOf, usePlan, useWorkbench } from '../../state/workbench.ts';

/** The outline of the chosen route under the present plan; the last one stays until the next is there. */
export function useOutline(): { outline: Outline | null; error: string | null } {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const [state, setState] = useState<{ outline: Outline | null; error: string | null }>({ outline: null, error: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) is another outline
  useEffect(() => {
    let current = true;
    analyst()
      .outline(plan, route)
      .then(
        (outline) => current && setState({ outline, error: null }),
        (error: Error) => current && setState({ outline: null, error: error.message }),
      );
    return () => {
      current = false;
    };
  }, [app, plan, route]);
  return state;
}

/** What decisions would change, computed without making them; an error in words when that fails. */
export function usePreview(decisions: Decision[] | null): Preview | string | null {
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const [preview, setPreview] = useState<Preview | string | null>(null);
  const wish = decisions ? JSON.stringify(decisions) : null;
  useEffect(() => {
    setPreview(null);
    if (wish === null) return;
    let current = true;
    analyst()
      .preview(plan, JSON.parse(wish) as Decision[], route, conditionsOf({ linkId, deviceId, cache }))
      .then(
        (found) => current && setPreview(found),
        (error: Error) => current && setPreview(error.message),
      );
    return () => {
      current = false;
    };
  }, [plan, route, linkId, deviceId, cache, wish]);
  return preview;
}

/** What of a piece of code leaves the start, what stays and who keeps it; an error in words when that can't be told. */
export function useHold(decisions: Decision[], target: string): Explained | string | null {
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const [found, setFound] = useState<Explained | string | null>(null);
  const wish = JSON.stringify(decisions);
  useEffect(() => {
    setFound(null);
    let current = true;
    analyst()
      .explain(plan, JSON.parse(wish) as Decision[], route, target, conditionsOf({ linkId, deviceId, cache }))
      .then(
        (next) => current && setFound(next ?? 'This module is not in the snapshot any more.'),
        (error: Error) => current && setFound(error.message),
      );
    return () => {
      current = false;
    };
  }, [plan, route, target, linkId, deviceId, cache, wish]);
  return found;
}
