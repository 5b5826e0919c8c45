import type { Priority } from './types.ts';

/** How much of an answer the server writes as one TLS record: nothing of it is seen before it is complete. */
const RECORD = { fifo: 16_000, urgency: 4_000 } as const;

/** An answer on its way: the server writes, the transport takes it record by record. */
export class Stream {
  private unsent: number[] = [];
  /** Bytes of which the browser has seen nothing yet, but that are cut into records already. */
  readyAt = 0;

  constructor(
    readonly priority: Priority,
    /** Whether it takes turns with others of its priority. */
    readonly incremental: boolean,
    /** Called when a record has arrived: its size, and when its first bit was on the link. */
    readonly onRecord: (bytes: number, from: number) => void,
  ) {}

  get waiting(): boolean {
    return this.unsent.length > 0;
  }

  /** The server writes so many bytes at once. */
  write(bytes: number, scheduling: 'fifo' | 'urgency'): void {
    const size = Math.max(RECORD[scheduling], bytes / 4096);
    for (let left = bytes; left > 0; left -= size) this.unsent.push(Math.min(left, size));
  }

  takeRecord(): number {
    return this.unsent.shift()!;
  }
}
