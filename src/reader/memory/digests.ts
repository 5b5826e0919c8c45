import { digestOf } from './memory.ts';

/**
 * Digests of texts that readings come to again and again: a text that is the same string in memory isn't gone through again. What the last reading
 * and this one didn't ask for is forgotten.
 */
export class Digests {
  private last = new Map<string, string>();
  private now = new Map<string, string>();

  of(text: string): string {
    const known = this.now.get(text);
    if (known !== undefined) return known;
    const digest = this.last.get(text) ?? digestOf(text);
    this.now.set(text, digest);
    return digest;
  }

  /** A reading is over. */
  settle(): void {
    this.last = this.now;
    this.now = new Map();
  }
}
