import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ReadAs } from '../core/snapshot/read-as.ts';
import type { CorrectedRoute } from '../core/snapshot/route-types.ts';
import { memoryFolder } from '../reader/memory/memory-folder.ts';
import { runReading } from '../reader/process/run-reading.ts';
import type { Read } from '../reader/process/work.ts';

const SCRIPT = fileURLToPath(new URL('../reader/process/reading-process.js', import.meta.url));

/** Reads a folder in a process of its own, so that nothing in it can end this one. */
export function readFolder(
  folder: string,
  how: { as?: ReadAs; base?: string; workspace?: string; starts?: string[]; corrected?: CorrectedRoute[] } = {},
): Promise<Read> {
  const { as = 'tell by content', base = null, workspace = null, starts = [], corrected = [] } = how;
  const work = { folder: path.resolve(folder), as, base, workspace, starts, corrected };
  return runReading(work, SCRIPT, { memory: memoryFolder() }).done;
}

/** The option that allows to read around the app's folder. */
export const WORKSPACE = [
  '--workspace <folder>',
  'folder around the app whose files may be read too: packages that it shares with other apps',
] as const;

/** The option that names what starts the app. */
export const STARTS = ['--start <file...>', 'files of the folder that start the app, where they aren’t found'] as const;

/** The workspace as a whole path: on the command line it is meant from where the command runs. */
export function workspaceFrom({ workspace }: { workspace?: string }): { workspace?: string } {
  return workspace === undefined ? {} : { workspace: path.resolve(workspace) };
}
