'use client';

import type { SourcePatch } from '../../../patch/types.ts';
import { api } from '../../state/api.ts';
import { type Asked, useAsked } from '../../state/asked.ts';
import { useWorkbench } from '../../state/workbench.ts';

/** The edits of the source that the open plan means; the server has the sources. */
export function usePatch(): Asked<SourcePatch> {
  const project = useWorkbench((s) => s.project?.id);
  return useAsked(({ plan }) => api.patch(project!, plan.name, plan.decisions), project, []);
}
