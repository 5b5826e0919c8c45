/**
 * Those who listen to something that goes on only for them. They may leave more than once (a stream ends for its reader and for its request),
 * and come back: it ends once nobody has listened for so long.
 */
export class Audience<E> {
  private readonly listeners = new Set<(event: E) => void>();
  private end: NodeJS.Timeout | null = null;

  /** `aloneMs`: so long nobody may listen before `deserted` is called. */
  constructor(
    private readonly aloneMs: number,
    private readonly deserted: () => void,
  ) {}

  get size(): number {
    return this.listeners.size;
  }

  /** Has somebody listen, until what it gives is called. */
  join(listener: (event: E) => void): () => void {
    // Of its own, so that one who joins twice leaves twice.
    const own = (event: E) => listener(event);
    this.listeners.add(own);
    if (this.end) clearTimeout(this.end);
    this.end = null;
    return () => {
      if (this.listeners.delete(own) && this.listeners.size === 0) this.endSoon();
    };
  }

  tell(event: E): void {
    for (const listener of [...this.listeners]) listener(event);
  }

  private endSoon(): void {
    this.end = setTimeout(() => {
      this.end = null;
      this.deserted();
    }, this.aloneMs);
    this.end.unref();
  }
}
