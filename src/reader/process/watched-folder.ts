import path from 'node:path';
import { type FSWatcher, watch } from 'chokidar';
import { pathFrom } from '../path-from.ts';

/** Folders of which nothing is an app's own code: what was installed, and what tools keep to themselves. */
const NOT_WATCHED = /(^|\/)(node_modules|\.[^/]+)(\/|$)/;
/** What package managers write when they have installed something. */
const INSTALLED = ['node_modules/.package-lock.json', 'node_modules/.modules.yaml', 'node_modules/.yarn-state.yml'];

/** Saving writes several files, and some of them in pieces: so long it has to be quiet, and no longer is waited, in ms. */
const QUIET_MS = 40;
const MOST_MS = 600;

/** A folder whose files are watched. */
export class WatchedFolder {
  private readonly watcher: FSWatcher;
  private readonly changed = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private since = 0;
  /** Fulfilled once changes are seen. */
  readonly ready: Promise<void>;

  /** `told`: hears the paths, from the folder, that were written, added or removed; those that come close together at once. */
  constructor(
    private readonly folder: string,
    private readonly told: (changed: ReadonlySet<string>) => void,
    private readonly trouble: (message: string) => void,
  ) {
    const installed = INSTALLED.map((file) => path.join(folder, file));
    this.watcher = watch([folder, ...installed], {
      ignoreInitial: true,
      followSymlinks: false,
      ignored: (file) => !installed.includes(file) && NOT_WATCHED.test(this.relative(file)),
    });
    this.watcher.on('all', (_, file) => this.note(this.relative(file)));
    this.watcher.on('error', (error) => this.trouble((error as Error).message));
    this.ready = new Promise((go) => {
      this.watcher.once('ready', () => go());
    });
  }

  async close(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    await this.watcher.close();
  }

  private note(file: string): void {
    const now = Date.now();
    if (this.changed.size === 0) this.since = now;
    this.changed.add(file);
    if (this.timer) clearTimeout(this.timer);
    const wait = Math.max(0, Math.min(QUIET_MS, this.since + MOST_MS - now));
    this.timer = setTimeout(() => {
      const all = new Set(this.changed);
      this.changed.clear();
      this.told(all);
    }, wait);
  }

  private relative(file: string): string {
    return pathFrom(this.folder, file);
  }
}
