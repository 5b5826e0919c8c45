import { Digests } from './digests.ts';
import type { FilesMemory } from './files-memory.ts';
import type { Memory } from './memory.ts';

/** What isn't asked for in so many readings is forgotten. */
const READINGS = 3;

/** What outlives a process. */
type Beneath = Pick<Memory, 'keep'> & { recall(key: string): unknown; settle(): void };

/**
 * The memory of readings that follow one another in one process. `beneath`: a slower one that outlives it. `files`: where files that are as they
 * were needn't be opened again.
 */
export class ReadingsMemory implements Memory {
  private readonly known = new Map<string, { value: unknown; reading: number }>();
  private reading = 0;

  private readonly digests = new Digests();

  constructor(
    private readonly beneath: Beneath | null = null,
    readonly files: FilesMemory | null = null,
  ) {}

  readonly foresee = null;

  digest(text: string): string {
    return this.digests.of(text);
  }

  recall(key: string): unknown {
    const found = this.known.get(key);
    if (found) {
      found.reading = this.reading;
      return found.value;
    }
    const value = this.beneath?.recall(key);
    if (value !== undefined) this.known.set(key, { value, reading: this.reading });
    return value;
  }

  keep(key: string, value: unknown): void {
    this.known.set(key, { value, reading: this.reading });
    this.beneath?.keep(key, value);
  }

  /** A reading is over: what the last ones didn't need is forgotten. */
  settle(): void {
    this.beneath?.settle();
    this.digests.settle();
    this.files?.settle();
    this.reading++;
    for (const [key, { reading }] of this.known) if (this.reading - reading > READINGS) this.known.delete(key);
  }
}
