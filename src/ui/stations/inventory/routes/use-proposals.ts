import { useEffect } from 'react';
import { proposeParts } from '../../../state/read-again.ts';
import { useWorkbench } from '../../../state/workbench.ts';

/** What was tried by itself: once for each correction, as a page that can’t be read is no reason to try for ever. */
const tried = new Set<string>();

/** Has parts proposed for routes that were given another page or other layouts, where their folder can be read again. */
export function useProposals(): void {
  const project = useWorkbench((s) => s.project);
  const unproposed = useWorkbench((s) => s.app?.unproposed);
  useEffect(() => {
    if (!project?.folder || !unproposed || unproposed.length === 0) return;
    const { routes } = project.amended.amendments;
    const key = JSON.stringify([project.id, routes.map((r) => [r.realm, r.pattern, r.change.page, r.change.layouts])]);
    if (tried.has(key)) return;
    tried.add(key);
    void proposeParts();
  }, [project, unproposed]);
}
