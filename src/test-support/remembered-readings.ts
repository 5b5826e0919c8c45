/**
 * Tests read the same apps again and again: what their texts say is found out once in each run, as it is in the product. That such a reading is the same to the
 * letter as one from cold is a test of its own (`src/reader/memory`, `src/reader/follow.test.ts`).
 */
import { DiskMemory } from '../reader/memory/disk-memory.ts';
import { digestOf, type Memory, rememberWith } from '../reader/memory/memory.ts';
import { memoryFolder } from '../reader/memory/memory-folder.ts';
import { ReadingsMemory } from '../reader/memory/readings-memory.ts';

/** Most tests read nothing: the file is opened by the first that does. */
class Lazy implements Memory {
  private memory: ReadingsMemory | null = null;

  private opened(): ReadingsMemory {
    const folder = memoryFolder();
    this.memory ??= new ReadingsMemory(folder === null ? null : DiskMemory.open(folder));
    return this.memory;
  }

  recall(key: string): unknown {
    return this.opened().recall(key);
  }

  keep(key: string, value: unknown): void {
    this.opened().keep(key, value);
  }

  digest(text: string): string {
    return digestOf(text);
  }

  readonly files = null;
  readonly foresee = null;

  settle(): void {
    this.memory?.settle();
  }
}

const memory = new Lazy();
rememberWith(memory);
afterAll(() => memory.settle());
