'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { ProjectRow } from '../../store/projects.ts';
import { Choice } from '../parts/choice.tsx';
import { later } from '../parts/later.tsx';
import { toast } from '../parts/toast.ts';
import { api } from '../state/api.ts';
import { compareSince, keepPlansBeside, setFollows } from '../state/following.ts';
import { readAgain } from '../state/read-again.ts';
import { useWorkbench } from '../state/workbench.ts';
import { useReadDialog } from './drop.ts';
import { recentFolders } from './sheets/recent-folders.ts';

const ReadDialog = later(() => import('./sheets/read-dialog.tsx').then((m) => m.ReadDialog));

const READ = ':read';
const READ_AGAIN = ':again';
const FOLLOW = ':follow';
const KEEP = ':keep';
const COMMIT = ':commit';

/** The project under study; opens another one or a project file. */
export function ProjectChoice() {
  const project = useWorkbench((s) => s.project);
  const router = useRouter();
  const asking = useReadDialog((s) => s.open);
  const [projects, setProjects] = useState<ProjectRow[]>([]);
  useEffect(() => {
    api.projects().then(setProjects, (error: Error) => toast.error(error.message));
  }, []);

  return (
    <>
      {asking ? (
        <ReadDialog
          recent={recentFolders(projects)}
          onClose={() => useReadDialog.setState({ open: false, dropped: null })}
          onRead={(id) => router.push(`/p/${id}/inventory`)}
        />
      ) : null}
      <Choice
        caption="project"
        value={project?.id ?? ''}
        shown={project?.name}
        options={[
          ...projects.map((p) => ({ value: p.id, label: p.name, ...whichOf(p, projects) })),
          ...(project?.folder
            ? [
                {
                  value: FOLLOW,
                  label: project.follows ? 'Stop following this folder' : 'Follow this folder',
                  note: project.follows ? 'saved files are read at once' : 'read saved files at once',
                },
                { value: READ_AGAIN, label: 'Read this folder again' },
                { value: COMMIT, label: 'Compare with the last commit', note: 'git' },
                { value: KEEP, label: 'Keep plans beside the code', note: 'yokeline.plan.json' },
              ]
            : []),
          { value: READ, label: 'Read another app …' },
        ]}
        onChange={(next) => {
          if (next === READ) useReadDialog.setState({ open: true });
          else if (next === FOLLOW) {
            setFollows(!project?.follows).catch((error: Error) => toast.error(error.message));
          } else if (next === COMMIT) {
            const id = toast.loading('Reading the last commit');
            compareSince('last commit').then(
              () => toast.dismiss(id),
              (error: Error) => toast.error(error.message, { id }),
            );
          } else if (next === KEEP) {
            keepPlansBeside().then(
              (words) => toast.success(words, { duration: 10_000 }),
              (error: Error) => toast.error(error.message),
            );
          } else if (next === READ_AGAIN) {
            if (project) void readAgain(project);
          } else router.push(`/p/${next}/startup`);
        }}
      />
    </>
  );
}

/** What tells a project from others of its name: the end of its folder’s path, or that it came as a file. */
function whichOf({ name, folder }: ProjectRow, all: readonly ProjectRow[]): { note?: string } {
  if (all.filter((p) => p.name === name).length < 2) return {};
  return { note: folder === null ? 'from a file' : `…/${folder.split(/[/\\]/).slice(-2).join('/')}` };
}
