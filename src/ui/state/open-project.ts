import type { FirstPage } from '../../server/first-look.ts';
import type { ProjectView } from '../../server/projects.ts';
import type { Wishes } from '../../worker/choice.ts';
import { alone } from '../../worker/client.ts';
import { api } from './api.ts';
import { takeLanding } from './landing.ts';
import { forgetLongWork } from './long-work.ts';
import { useStartupView } from './startup-view.ts';
import { continues } from './subject.ts';
import { telling } from './workbench/notices.ts';
import { useWorkbench } from './workbench.ts';

/** Begins again what broke down, with all that is open. */
export function beginAnew(): void {
  const { project } = useWorkbench.getState();
  forgetLongWork();
  if (!project) return;
  useWorkbench.setState((s) => telling(s, 'A computation broke down and is begun again.'));
  reload(project.id).catch((error: Error) => useWorkbench.setState((s) => telling(s, error.message)));
}

/** How a project is opened besides by its id. */
interface Opening {
  /** What is to be shown of it. */
  wishes: () => Partial<Wishes>;
  /** Whether it still is what the person wants to see. */
  wanted?: () => boolean;
  /** What the server sent along with the page: shown at once, while the worker fetches the app. */
  first?: FirstPage | null;
  /** Called whenever something is shown that wasn’t. */
  shown?: () => void;
}

/** Loads a project into the state and its snapshot into the worker. */
export async function openProject(
  id: string,
  { wishes, wanted = () => true, first = null, shown = () => {} }: Opening,
): Promise<void> {
  const { project: before, close } = useWorkbench.getState();
  if (before?.id !== id) {
    // Nothing that is of another project is shown any more, or asked of the snapshot that comes.
    close();
    useStartupView.setState({ part: null, at: null, under: null });
  }
  if (first) {
    useWorkbench.getState().open(first.project, first.app, wishes());
    // Where decisions were kept in this browser that couldn’t be saved, the landing is another one.
    if (first.landing && useWorkbench.getState().project === first.project) takeLanding(first.landing);
    shown();
  }
  await alone(async (worker) => {
    const opened = worker.open(`${location.origin}/api/projects/${id}/snapshot`);
    // Where both fail, what the server says of the project counts: it says what can be done.
    opened.catch(() => undefined);
    const told = await api.project(id);
    const { snapshotId } = await opened;
    const isShown = first !== null && isAs(first.project, { ...told, snapshotId });
    const isOther = first !== null && !isShown;
    // Something was saved since the server sent the page. What was decided on it meanwhile is stored before it is left.
    if (isOther) await useWorkbench.getState().saveNow();
    const project = { ...(isOther ? await api.project(id) : told), snapshotId };
    const app = await worker.amend(project.amended.amendments);
    if (!wanted() || isShown) return;
    // What was chosen while it was loading counts.
    useWorkbench.getState().open(project, app, isOther ? chosenNow() : wishes());
    shown();
  });
}

/** The same project with its newest snapshot; what was chosen stays chosen as far as it is still there. */
export function reload(id: string): Promise<void> {
  return openProject(id, { wishes: chosenNow });
}

function chosenNow(): Wishes {
  const { planId, route, linkId, deviceId, cache } = useWorkbench.getState();
  return { planId: planId ?? 'baseline', route, linkId, deviceId, cache };
}

/** Whether a project was read and corrected no more since. */
function isAs(shown: ProjectView, now: ProjectView): boolean {
  return shown.snapshotId === now.snapshotId && shown.amended.version === now.amended.version;
}

/** Takes the newest reading of the open project's folder; what is chosen, decided and can be undone stays as it is. */
export function takeNewest(id: string, snapshotId: string): Promise<void> {
  return alone(async (worker) => {
    const before = useWorkbench.getState();
    if (before.project?.id !== id || !before.app) return;
    // Of two saves in quick succession the first may have fetched what the second made: taken twice, it would be no change of itself.
    if (before.project.snapshotId === snapshotId) return;
    const { app, snapshotId: taken } = await worker.openAnew(
      `${location.origin}/api/projects/${id}/snapshot`,
      before.project.amended.amendments,
    );
    const { project, route } = useWorkbench.getState();
    if (project?.id !== id) return;
    continues(before.app, app);
    const kept = app.routes.some((r) => r.pattern === route) ? route : (app.routes[0]?.pattern ?? '');
    useWorkbench.setState({ app, route: kept, project: { ...project, snapshotId: taken } });
    if (kept !== route && route)
      useWorkbench.setState((s) => telling(s, `There is no route ${route} any more; ${kept || 'none'} is shown.`));
  });
}
