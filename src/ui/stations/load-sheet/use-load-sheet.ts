'use client';

import { useEffect, useState } from 'react';
import type { LoadSheet } from '../../../core/load-sheet/sheet.ts';
import { analyst } from '../../../worker/client.ts';
import { conditionsOf, usePlan, useWorkbench } from '../../state/workbench.ts';

interface Shown {
  sheet: LoadSheet | null;
  changed: { rows: string[]; columns: string[] };
  error: string | null;
}

/** The load sheet under the present plan and conditions; the last one stays until the next is there. */
export function useLoadSheet(): Shown {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const [shown, setShown] = useState<Shown>({ sheet: null, changed: { rows: [], columns: [] }, error: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) is another sheet
  useEffect(() => {
    let current = true;
    analyst()
      .loadSheet(plan, conditionsOf({ linkId, deviceId, cache }))
      .then(
        (found) => current && setShown({ ...found, error: null }),
        (error: Error) => current && setShown((s) => ({ ...s, error: error.message })),
      );
    return () => {
      current = false;
    };
  }, [plan, app, linkId, deviceId, cache]);
  return shown;
}
