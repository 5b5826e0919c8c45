'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { Choice } from '../parts/choice.tsx';
import { api } from '../state/api.ts';
import { useWorkbench } from '../state/workbench.ts';

const OPEN_FILE = ':file';

/** The project under study; opens another one or a project file. */
export function ProjectChoice() {
  const project = useWorkbench((s) => s.project);
  const router = useRouter();
  const picker = useRef<HTMLInputElement>(null);
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

  return (
    <>
      <Choice
        caption="project"
        value={project?.id ?? ''}
        shown={project?.name}
        options={[
          ...projects.map((p) => ({ value: p.id, label: p.name })),
          { value: OPEN_FILE, label: 'Open a project file …' },
        ]}
        onChange={(next) => {
          if (next === OPEN_FILE) picker.current?.click();
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
