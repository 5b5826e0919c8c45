import fs from 'node:fs';
import path from 'node:path';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { type Decided, PLANS_FILE_NAME, parsePlansFile } from '../core/formats/plans-file.ts';
import { readProject } from './files.ts';

/** What is kept beside the code of a folder; null where nothing is. Throws InputError for a file that can't be understood. */
export function decidedIn(folder: string): Decided | null {
  const file = path.join(folder, PLANS_FILE_NAME);
  return fs.existsSync(file) ? parsePlansFile(fs.readFileSync(file, 'utf8'), file) : null;
}

/** What counts for an app: of the project file that was named, else what is kept beside its code, else nothing. */
export function decidedFor(folder: string, project: string | undefined): Decided {
  if (project !== undefined) return readProject(project);
  return decidedIn(folder) ?? { plans: [], amendments: NO_AMENDMENTS };
}
