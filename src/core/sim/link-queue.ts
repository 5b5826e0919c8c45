const FORGET_AFTER = 1000;

/**
 * One direction of the bottleneck link: packets queue, leave at the line rate, and arrive half a round trip later. A
 * packet that finds the queue full is dropped; one may be lost on its way, after it has taken its time on the link.
 */
export class LinkQueue {
  private free = Number.NEGATIVE_INFINITY;
  /** When each queued packet has left; the first of them that may still be there. */
  private readonly leaves: number[] = [];
  private head = 0;

  constructor(
    private readonly kbps: number,
    readonly delayMs: number,
    private readonly queueLimit = Number.POSITIVE_INFINITY,
    /** Whether the link loses a packet that it has carried. */
    private readonly loses: () => boolean = () => false,
  ) {}

  /** Sends a packet of so many bytes; gives the instant at which its last bit arrives. It is never dropped. */
  send(now: number, bytes: number): number {
    this.free = Math.max(now, this.free) + this.serialMs(bytes);
    if (this.queueLimit < Number.POSITIVE_INFINITY) this.leaves.push(this.free);
    return this.free + this.delayMs;
  }

  /** Sends a packet that finds room whatever waits; gives null where it is lost on its way. */
  carry(now: number, bytes: number): number | null {
    const arrival = this.send(now, bytes);
    return this.loses() ? null : arrival;
  }

  /** The same, but gives null for a packet that the queue has no room for, or that is lost on its way. */
  offer(now: number, bytes: number): number | null {
    while (this.head < this.leaves.length && this.leaves[this.head] <= now) this.head++;
    if (this.head > FORGET_AFTER) {
      this.leaves.splice(0, this.head);
      this.head = 0;
    }
    if (this.leaves.length - this.head >= this.queueLimit) return null;
    return this.carry(now, bytes);
  }

  /** Time on the line for so many bytes. */
  serialMs(bytes: number): number {
    return (bytes * 8) / this.kbps;
  }
}
