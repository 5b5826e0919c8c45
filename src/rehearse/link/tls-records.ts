/** Type, version and length of a record (RFC 8446, 5.1). */
const HEADER = 5;

/** Finds where the TLS records of a stream end, which is how much its sender wrote at once. */
export class TlsRecords {
  private readonly header: number[] = [];
  private left = 0;
  private position = 0;
  /** Ends of records that were found, as positions in the stream, and not yet taken. */
  private readonly ends: number[] = [];

  /** Takes the next bytes of the stream in. */
  take(bytes: Uint8Array): void {
    for (let at = 0; at < bytes.length; ) {
      if (this.left === 0) {
        this.header.push(bytes[at++]);
        if (this.header.length < HEADER) continue;
        this.left = this.header[3] * 256 + this.header[4];
        this.header.length = 0;
        if (this.left === 0) this.ends.push(this.position + at);
        continue;
      }
      const here = Math.min(this.left, bytes.length - at);
      at += here;
      this.left -= here;
      if (this.left === 0) this.ends.push(this.position + at);
    }
    this.position += bytes.length;
  }

  /** The end of the record that holds the byte at a position; null while that isn’t known. */
  endAfter(position: number): number | null {
    while (this.ends.length > 0 && this.ends[0] <= position) this.ends.shift();
    return this.ends[0] ?? null;
  }
}
