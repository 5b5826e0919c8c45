import type { Sending } from './conditions.ts';
import type { Priority } from './types.ts';

/** How much the server writes as one piece (a TLS record, a QUIC packet): nothing of it is seen before it is complete. */
const RECORD = { fifo: 16_000, urgency: 4_000, shared: 1_200 } as const;

/** An answer on its way: the server writes, the transport takes it record by record. */
export class Stream {
  private unsent = 0;
  /** Of that, what makes a piece by itself: headers that are sent before there is more. */
  private apart = 0;
  /** The largest piece that the server has written at once. */
  largest = 0;
  /** When the server had something to send: decides the turn where the order is that of readiness. */
  readyAt = 0;

  constructor(
    readonly priority: Priority,
    /** Whether it takes turns with others of its priority. */
    readonly incremental: boolean,
    private readonly sending: Sending,
    /** Called when a record has arrived: its size, and when its first bit was on the link. */
    readonly onRecord: (bytes: number, from: number) => void,
    private readonly dropped?: () => boolean,
  ) {}

  get waiting(): boolean {
    return this.unsent > 0 && !this.dropped?.();
  }

  /** Most that goes into one record; more for answers that would need very many. */
  get record(): number {
    const { serverScheduling, recordBytes = RECORD[serverScheduling] } = this.sending;
    return Math.max(recordBytes, this.largest / 4096);
  }

  /** The server writes so many bytes at once. */
  write(bytes: number): void {
    this.unsent += bytes;
    this.largest = Math.max(this.largest, bytes);
  }

  /** The server writes headers, and sends them without waiting for more. */
  writeApart(bytes: number): void {
    this.write(bytes);
    this.apart = bytes;
  }

  /** Takes at most so many of the bytes that wait. */
  take(most: number): number {
    const bytes = this.apart > 0 ? this.apart : Math.min(most, this.unsent);
    this.apart = 0;
    this.unsent -= bytes;
    if (this.unsent < 0.001) this.unsent = 0;
    return bytes;
  }
}
