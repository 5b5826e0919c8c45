import type { ReadAgain } from '../../server/reading.ts';
import { toast } from '../parts/toast.ts';
import { api } from './api.ts';
import { oneAtATime } from './one-at-a-time.ts';
import { reload } from './open-project.ts';
import { follow, progressWords, troubleWords } from './reading.ts';
import { useWorkbench } from './workbench.ts';

interface Named {
  id: string;
  name: string;
}

/**
 * Reads a project's folder again and tells what changed. `workspace`: the folder around it that the person allows to be read too, as the way
 * from the project's folder.
 */
export function readAgain(project: Named, workspace?: string): Promise<void> {
  return reading(project, `Reading ${project.name} again`, workspace, ({ added, removed, grown }) => {
    return `${added.length} modules and scripts added, ${removed.length} removed, ${grown.length} changed in size.`;
  });
}

/** Reads the folder of the open project again for the parts of routes whose page or layouts were corrected; once more where more is corrected meanwhile. */
export const proposeParts = oneAtATime(async () => {
  const { project, saveNow } = useWorkbench.getState();
  if (!project) return;
  // What is corrected must be known where the folder is read; that it can't be saved is told by whoever tries.
  await saveNow();
  if (useWorkbench.getState().savingAmendments !== 'saved') return;
  await reading(project, 'Proposing parts', undefined, () => {
    const left = (useWorkbench.getState().app?.unproposed ?? []).map((r) => r.pattern);
    return left.length === 0
      ? 'Parts are proposed as the code is by your correction.'
      : `Nothing can be proposed for ${left.join(', ')}: its page or layouts aren’t in the folder.`;
  });
});

async function reading(
  project: Named,
  words: string,
  workspace: string | undefined,
  summary: (changes: ReadAgain) => string,
): Promise<void> {
  const id = toast.loading(words);
  try {
    const allowed = workspace === undefined ? {} : { workspace };
    const end = await follow(api.startReading({ projectId: project.id, ...allowed }), (state) =>
      toast.loading(`${words}: ${progressWords(state).toLowerCase()}`, { id }),
    );
    if (!end.changes) throw new Error(troubleWords(end) ?? 'The reading was stopped.');
    // Another project may be open by now.
    if (useWorkbench.getState().project?.id === project.id) await reload(project.id);
    const lost = end.changes.stale.map((s) => `${s.plan}: ${s.reasons.join('; ')}`).join('. ');
    const said = summary(end.changes);
    toast.success(lost ? `${said} No longer applies: ${lost}` : said, { id, duration: 10_000 });
  } catch (error) {
    toast.error(error instanceof Error ? error.message : String(error), { id, duration: 12_000 });
  }
}
