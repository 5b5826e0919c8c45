import type { Priority } from './types.ts';

/** How much of an answer the server writes as one TLS record: nothing of it is seen before it is complete. */
const RECORD = { fifo: 16_000, urgency: 4_000 } as const;

/** An answer on its way: the server writes, the transport takes it record by record. */
export class Stream {
  /** Sizes of the records that the transport hasn't taken yet. */
  private unsent: number[] = [];
  /** When the server had something to send: decides the turn where the order is that of readiness. */
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
