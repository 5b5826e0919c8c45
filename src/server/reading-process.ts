import path from 'node:path';
import { memoryFolder } from '../reader/memory/memory-folder.ts';
import { dataFolder, home } from './context.ts';

/** Where the process of a reading begins, and where readings remember what they found out. */
export function howProcessesRead(): { script: string; memory: string | null } {
  return {
    script: path.join(home(), 'dist', 'reader', 'process', 'reading-process.js'),
    memory: memoryFolder(path.join(dataFolder(), 'readings')),
  };
}
