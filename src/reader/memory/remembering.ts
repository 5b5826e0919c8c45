import { DiskMemory } from './disk-memory.ts';
import { FilesMemory } from './files-memory.ts';
import { rememberWith } from './memory.ts';
import { ReadingsMemory } from './readings-memory.ts';

/** The memory of the last readings of this process. */
let last: { folder: string | null; memory: ReadingsMemory } | null = null;

/**
 * Gives what `read` gives, which reads with what earlier readings of this process found out, and those that keep it in a folder (null: none do).
 * Afterwards readings go on as before.
 */
export function remembering<T>(folder: string | null, read: () => T): T {
  if (last?.folder !== folder)
    last = { folder, memory: new ReadingsMemory(folder === null ? null : DiskMemory.open(folder), new FilesMemory()) };
  const { memory } = last;
  const before = rememberWith(memory);
  try {
    return read();
  } finally {
    rememberWith(before);
    memory.settle();
  }
}
