import type { ProjectRow } from '../../../store/projects.ts';

const MOST = 5;

/** Folders of this machine that were read before, the latest first, each once. */
export function recentFolders(projects: ProjectRow[]): string[] {
  const folders = projects.flatMap((p) => p.folder ?? []);
  return [...new Set(folders)].slice(0, MOST);
}
