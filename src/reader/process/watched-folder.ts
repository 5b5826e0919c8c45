import fs from 'node:fs';
import path from 'node:path';
import { type FSWatcher, watch } from 'chokidar';
import { pathFrom } from '../path-from.ts';
import { COMPILER_FILES } from '../script/compiling.ts';
import { ENVIRONMENT_FILES } from '../script/environment.ts';

/** Hidden files that readings look into. */
const HIDDEN = new Set([...ENVIRONMENT_FILES, ...COMPILER_FILES].filter((name) => name.startsWith('.')));
/** What package managers write when they have installed something. */
const INSTALLED = ['node_modules/.package-lock.json', 'node_modules/.modules.yaml', 'node_modules/.yarn-state.yml'];

/** Saving writes several files, and some of them in pieces: so long it has to be quiet, and no longer is waited, in ms. */
const QUIET_MS = 40;
const MOST_MS = 600;

/** Whether a file or folder of such a name may be of an app’s own code: what was installed isn’t, nor what tools keep to themselves. */
export function mayBeRead(name: string): boolean {
  return name !== 'node_modules' && (!name.startsWith('.') || name === '' || HIDDEN.has(name));
}

/** A folder whose files are watched, and what around it belongs to the app. */
export class WatchedFolder {
  private readonly watcher: FSWatcher;
  private readonly installs: FSWatcher;
  private readonly changed = new Set<string>();
  /** Those of them that weren’t there before. */
  private readonly come = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private since = 0;
  /** Fulfilled once changes are seen. */
  readonly ready: Promise<void>;
  /** Folders that are watched whole: the app’s, and those around it that its files come from. */
  private readonly whole: Set<string>;

  /**
   * `told`: hears the paths, from the folder, that were written, added or removed; those that come close together at once. `workspace`: a folder around the app that may
   * be read; of it the files at its top are watched, and what `alsoIn` names.
   */
  constructor(
    private readonly folder: string,
    workspace: string | null,
    private readonly told: (changed: ReadonlySet<string>) => void,
    private readonly trouble: (message: string) => void,
  ) {
    const tops = workspace === null ? [folder] : [folder, workspace];
    const installed = tops.flatMap((top) => INSTALLED.map((file) => path.join(top, file)));
    const top = workspace === null || workspace === folder ? [] : filesIn(workspace);
    this.whole = new Set([folder]);
    this.watcher = watch([folder, ...top], {
      ignoreInitial: true,
      followSymlinks: false,
      ignored: (file) => !top.includes(file) && this.isAside(file),
    });
    // By itself: a watcher counts a file that isn't there twice, and says too soon that it sees all others.
    this.installs = watch(installed, {
      ignoreInitial: true,
      followSymlinks: false,
      ignored: (file) => !installed.some((one) => one === file || one.startsWith(file + path.sep)),
    });
    for (const watcher of [this.watcher, this.installs]) {
      watcher.on('all', (event, file) => this.note(pathFrom(this.folder, file), event));
      watcher.on('error', (error) => this.trouble((error as Error).message));
    }
    this.ready = new Promise((go) => {
      this.watcher.once('ready', () => go());
    });
  }

  /** Watches these folders as well, from now on; those that are no more of use go on being watched, which costs little. */
  alsoIn(folders: readonly string[]): void {
    const others = folders.filter((f) => !this.whole.has(f));
    for (const f of others) this.whole.add(f);
    if (others.length > 0) this.watcher.add(others);
  }

  async close(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    await Promise.all([this.watcher.close(), this.installs.close()]);
  }

  private note(file: string, event: string): void {
    const now = Date.now();
    if (this.changed.size === 0) this.since = now;
    if (event === 'add' && !this.changed.has(file)) this.come.add(file);
    // Tools write into a file of their own and put that in the place of another one.
    if (event === 'unlink' && this.come.delete(file)) this.changed.delete(file);
    else this.changed.add(file);
    if (this.timer) clearTimeout(this.timer);
    const wait = Math.max(0, Math.min(QUIET_MS, this.since + MOST_MS - now));
    this.timer = setTimeout(() => {
      const all = new Set(this.changed);
      this.changed.clear();
      this.come.clear();
      if (all.size > 0) this.told(all);
    }, wait);
  }

  /** Whether nothing of the app’s own can lie there, seen from the folder that is watched around it. */
  private isAside(file: string): boolean {
    for (const folder of this.whole)
      if (file === folder || file.startsWith(folder + path.sep))
        return !pathFrom(folder, file).split('/').every(mayBeRead);
    return true;
  }
}

/** Files that lie in a folder itself. */
function filesIn(folder: string): string[] {
  try {
    const found = fs.readdirSync(folder, { withFileTypes: true });
    return found.flatMap((e) => (e.isFile() && mayBeRead(e.name) ? [path.join(folder, e.name)] : []));
  } catch {
    return [];
  }
}
