'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { Choice } from '../parts/choice.tsx';
import { api } from '../state/api.ts';
import { reload } from '../state/open-project.ts';
import { follow, progressWords, troubleWords } from '../state/reading.ts';
import { useWorkbench } from '../state/workbench.ts';
import { FolderDialog } from './folder-dialog.tsx';

const OPEN_FILE = ':file';
const READ_FOLDER = ':folder';
const READ_AGAIN = ':again';

/** The project under study; opens another one or a project file. */
export function ProjectChoice() {
  const project = useWorkbench((s) => s.project);
  const router = useRouter();
  const picker = useRef<HTMLInputElement>(null);
  const [asking, setAsking] = useState(false);
  const [projects, setProjects] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    api.projects().then(setProjects, (error: Error) => toast.error(error.message));
  }, []);

  const bring = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { id } = await api.importProject(file.name, await file.text());
      router.push(`/p/${id}/startup`);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error), { duration: 12_000 });
    }
  };

  const again = async () => {
    if (!project) return;
    const reading = toast.loading(`Reading ${project.name} again`);
    try {
      const end = await follow({ projectId: project.id }, (state) =>
        toast.loading(progressWords(state), { id: reading }),
      );
      if (!end.changes) throw new Error(troubleWords(end) ?? 'The reading was stopped.');
      const { added, removed, grown, stale } = end.changes;
      const lost = stale.map((s) => `${s.plan}: ${s.reasons.join('; ')}`).join('. ');
      const words = `${added.length} modules added, ${removed.length} removed, ${grown.length} changed in size.`;
      toast.success(lost ? `${words} No longer applies: ${lost}` : words, { id: reading, duration: 10_000 });
      await reload(project.id);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error), { id: reading, duration: 12_000 });
    }
  };

  return (
    <>
      {asking ? (
        <FolderDialog onClose={() => setAsking(false)} onRead={(id) => router.push(`/p/${id}/inventory`)} />
      ) : null}
      <Choice
        caption="project"
        value={project?.id ?? ''}
        shown={project?.name}
        options={[
          ...projects.map((p) => ({ value: p.id, label: p.name })),
          ...(project?.folder ? [{ value: READ_AGAIN, label: 'Read this folder again' }] : []),
          { value: READ_FOLDER, label: 'Read a folder on this machine …' },
          { value: OPEN_FILE, label: 'Open a project file …' },
        ]}
        onChange={(next) => {
          if (next === OPEN_FILE) picker.current?.click();
          else if (next === READ_FOLDER) setAsking(true);
          else if (next === READ_AGAIN) void again();
          else router.push(`/p/${next}/startup`);
        }}
      />
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        aria-label="Project file"
        className="hidden"
        onChange={(event) => {
          void bring(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}
