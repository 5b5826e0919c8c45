/** Saving writes several files, and some of them in pieces: so long it has to be quiet, and no longer is waited, in ms. */
const QUIET_MS = 40;
const MOST_MS = 600;

/** Changes of files that come close together, told at once. */
export class GatheredChanges {
  private readonly changed = new Set<string>();
  /** Those of them that weren’t there before. */
  private readonly come = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private since = 0;

  constructor(private readonly told: (changed: ReadonlySet<string>) => void) {}

  /** `event`: as the watcher calls what happened to a file. */
  note(file: string, event: string): void {
    const now = Date.now();
    if (this.changed.size === 0) this.since = now;
    if (event === 'add' && !this.changed.has(file)) this.come.add(file);
    // Tools write into a file of their own and put that in the place of another one.
    if (event === 'unlink' && this.come.delete(file)) this.changed.delete(file);
    else this.changed.add(file);
    if (this.timer) clearTimeout(this.timer);
    const wait = Math.max(0, Math.min(QUIET_MS, this.since + MOST_MS - now));
    this.timer = setTimeout(() => this.tell(), wait);
  }

  /** Nothing is told any more. */
  close(): void {
    if (this.timer) clearTimeout(this.timer);
  }

  private tell(): void {
    const all = new Set(this.changed);
    this.changed.clear();
    this.come.clear();
    if (all.size > 0) this.told(all);
  }
}
