import os from 'node:os';
import path from 'node:path';

/**
 * Where what readings found out is kept on disk: as `YOKELINE_READING_CACHE` says (a folder, or `off`), else the given folder, else the one that
 * the system has for such things. Null: nowhere.
 */
export function memoryFolder(
  given: string | null = null,
  env: Readonly<Record<string, string | undefined>> = process.env,
): string | null {
  const said = env.YOKELINE_READING_CACHE;
  if (said === 'off') return null;
  if (said) return path.resolve(said);
  if (given !== null) return given;
  return path.join(cachesOf(env), 'yokeline');
}

/** The folder for what can be made again: XDG Base Directory, and what the other systems have for it. */
function cachesOf(env: Readonly<Record<string, string | undefined>>): string {
  if (env.XDG_CACHE_HOME) return env.XDG_CACHE_HOME;
  if (process.platform === 'darwin') return path.join(os.homedir(), 'Library', 'Caches');
  if (process.platform === 'win32' && env.LOCALAPPDATA) return env.LOCALAPPDATA;
  return path.join(os.homedir(), '.cache');
}
