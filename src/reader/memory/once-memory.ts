import type { DiskMemory } from './disk-memory.ts';
import { digestOf, type Memory } from './memory.ts';

/**
 * The memory of a process that reads once. Nearly nothing is asked for twice in one reading, so nothing is held for that: what was found out goes to what
 * outlives the process, if there is such a thing. `beneath`: that.
 */
export class OnceMemory implements Memory {
  constructor(private readonly beneath: DiskMemory | null) {}

  readonly files = null;
  readonly foresee = null;

  digest(text: string): string {
    // Who reads once comes to a text a few times only, and would hold all of them for it.
    return digestOf(text);
  }

  recall(key: string): unknown {
    return this.beneath?.recall(key);
  }

  keep(key: string, value: unknown): void {
    this.beneath?.keep(key, value);
  }

  /** The reading is over. */
  settle(): void {
    this.beneath?.settle();
  }
}
