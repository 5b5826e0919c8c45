/** One direction of the bottleneck link: packets queue, leave at the line rate, and arrive half a round trip later. */
export class Pipe {
  private free = 0;

  constructor(
    private readonly kbps: number,
    readonly delayMs: number,
  ) {}

  /** Sends a packet of so many bytes; gives the instant at which its last bit arrives. */
  send(now: number, bytes: number): number {
    this.free = Math.max(now, this.free) + this.serialMs(bytes);
    return this.free + this.delayMs;
  }

  /** Time on the line for so many bytes. */
  serialMs(bytes: number): number {
    return (bytes * 8) / this.kbps;
  }
}
