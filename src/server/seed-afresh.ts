import { execFile } from 'node:child_process';
import path from 'node:path';
import { promisify } from 'node:util';
import { dataFolder, home } from './context.ts';

/** Puts the sample into the database when it isn't there, as at the first start: in a process of its own. */
export async function seedAfresh(): Promise<void> {
  const env = { ...process.env, YOKELINE_HOME: home(), YOKELINE_DATA: dataFolder() };
  await promisify(execFile)(process.execPath, [path.join(home(), 'dist', 'server', 'seed.js'), 'beside the server'], {
    env,
  });
}
