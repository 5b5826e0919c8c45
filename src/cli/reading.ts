import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ReadAs } from '../core/snapshot/read-as.ts';
import type { CorrectedRoute } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { memoryFolder } from '../reader/memory/memory-folder.ts';
import { runReading } from '../reader/process/run-reading.ts';
import type { Read, ReadWork } from '../reader/process/work.ts';

const SCRIPT = fileURLToPath(new URL('../reader/process/reading-process.js', import.meta.url));

interface How {
  as?: ReadAs;
  base?: string;
  workspace?: string;
  starts?: string[];
  corrected?: CorrectedRoute[];
}

/** What a reading of a folder is about, with what isn't said. */
export function workOf(folder: string, how: How = {}): ReadWork & { folder: string } {
  const { as = 'tell by content', base = null, workspace = null, starts = [], corrected = [] } = how;
  return { folder: path.resolve(folder), as, base, workspace, starts, corrected };
}

/** Where the process of a reading begins, and where readings remember. */
export function howProcessesRead(): { script: string; memory: string | null } {
  return { script: SCRIPT, memory: memoryFolder() };
}

/** Reads a folder in a process of its own, so that nothing in it can end this one. */
export function readFolder(folder: string, how: How = {}): Promise<Read> {
  const { script, memory } = howProcessesRead();
  return runReading(workOf(folder, how), script, { memory }).done;
}

/** Says what lies around the folder and wasn’t read, and how it is: figures without it are too small. */
export function tellOutside(folder: string, { notices }: Snapshot): void {
  for (const { kind, path: way, message } of notices)
    if (kind === 'outside') process.stderr.write(`${message}: --workspace ${path.join(folder, way)}\n`);
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
