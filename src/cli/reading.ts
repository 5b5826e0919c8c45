import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { ReadAs } from '../core/snapshot/read-as.ts';
import { runReading } from '../reader/process/run-reading.ts';
import type { Read } from '../reader/process/work.ts';

const SCRIPT = fileURLToPath(new URL('../reader/process/reading-process.js', import.meta.url));

/** Reads a folder in a process of its own, so that nothing in it can end this one. */
export function readFolder(folder: string, how: { as?: ReadAs; base?: string } = {}): Promise<Read> {
  const { as = 'tell by content', base = null } = how;
  return runReading({ folder: path.resolve(folder), as, base }, SCRIPT).done;
}
