import { telling } from './workbench/notices.ts';
import type { Selection } from './workbench/types.ts';
import { useWorkbench } from './workbench.ts';

/** Chooses something that is on another route than the one that is looked at, and says so. */
export function chooseOn(route: string, selection: Selection): void {
  const { route: before, choose } = useWorkbench.getState();
  choose({ route, selection });
  if (route !== before)
    useWorkbench.setState((s) =>
      telling(s, `It is on ${route}: that route is looked at now, not ${before}.`, { stays: false }),
    );
}
