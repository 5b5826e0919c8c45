'use client';

import { useEffect, useState } from 'react';
import type { GrainPoint } from '../../../../core/explain/granularity.ts';
import type { ChunkRow } from '../../../../worker/analyst.ts';
import { analyst } from '../../../../worker/client.ts';
import { conditionsOf, usePlan, useWorkbench } from '../../../state/workbench.ts';

interface Files {
  chunks: ChunkRow[] | null;
  points: GrainPoint[] | null;
  error: string | null;
}

/** The chunks of the present plan, and what finer or coarser files would do; the last ones stay until the next are there. */
export function useFiles(): Files {
  const plan = usePlan();
  const app = useWorkbench((s) => s.app);
  const route = useWorkbench((s) => s.route);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const [files, setFiles] = useState<Files>({ chunks: null, points: null, error: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another snapshot in the worker (app) makes other files
  useEffect(() => {
    let current = true;
    const fail = (error: Error) => current && setFiles((f) => ({ ...f, error: error.message }));
    analyst()
      .chunks(plan, route)
      .then((chunks) => current && setFiles((f) => ({ ...f, chunks, error: null })), fail);
    analyst()
      .granularity(plan, route, conditionsOf({ linkId, deviceId, cache }))
      .then((points) => current && setFiles((f) => ({ ...f, points, error: null })), fail);
    return () => {
      current = false;
    };
  }, [plan, app, route, linkId, deviceId, cache]);
  return files;
}
