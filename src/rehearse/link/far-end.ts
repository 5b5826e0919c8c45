import { Duplex } from 'node:stream';

/** What a server sees of a connection over the link: what arrives there, and what it sends. */
export class FarEnd extends Duplex {
  /** `send` gets what the server writes, and what to call when more can be written; `end` is told when it writes no more. */
  constructor(
    private readonly send: (bytes: Buffer, accepted: () => void) => void,
    private readonly end_: () => void,
  ) {
    super({ allowHalfOpen: true });
  }

  override _read(): void {
    // What arrives is handed on as it comes: requests are small.
  }

  override _write(bytes: Buffer, _: string, accepted: () => void): void {
    this.send(bytes, accepted);
  }

  override _final(done: () => void): void {
    this.end_();
    done();
  }
}
