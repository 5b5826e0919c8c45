import { toast } from 'sonner';
import { api } from '../state/api.ts';
import { reload } from '../state/open-project.ts';
import { follow, progressWords, troubleWords } from '../state/reading.ts';

/**
 * Reads a project's folder again and tells what changed. `workspace`: the folder around it that the person allows to be read too, as the way
 * from the project's folder.
 */
export async function readAgain(project: { id: string; name: string }, workspace?: string): Promise<void> {
  const reading = toast.loading(`Reading ${project.name} again`);
  try {
    const allowed = workspace === undefined ? {} : { workspace };
    const end = await follow(api.startReading({ projectId: project.id, ...allowed }), (state) =>
      toast.loading(progressWords(state), { id: reading }),
    );
    if (!end.changes) throw new Error(troubleWords(end) ?? 'The reading was stopped.');
    const { added, removed, grown, stale } = end.changes;
    const lost = stale.map((s) => `${s.plan}: ${s.reasons.join('; ')}`).join('. ');
    const words = `${added.length} modules and scripts added, ${removed.length} removed, ${grown.length} changed in size.`;
    toast.success(lost ? `${words} No longer applies: ${lost}` : words, { id: reading, duration: 10_000 });
    await reload(project.id);
  } catch (error) {
    toast.error(error instanceof Error ? error.message : String(error), { id: reading, duration: 12_000 });
  }
}
