import fs from 'node:fs';
import path from 'node:path';
import { type FSWatcher, watch } from 'chokidar';
import { pathFrom } from '../path-from.ts';
import { COMPILER_FILES } from '../script/compiling.ts';
import { ENVIRONMENT_FILES } from '../script/environment.ts';
import { GatheredChanges } from './gathered-changes.ts';

/** Hidden files that readings look into. */
const HIDDEN = new Set([...ENVIRONMENT_FILES, ...COMPILER_FILES].filter((name) => name.startsWith('.')));
/** What package managers write when they have installed something. */
const INSTALLED = ['node_modules/.package-lock.json', 'node_modules/.modules.yaml', 'node_modules/.yarn-state.yml'];

/** Whether a file or folder of such a name may be of an app’s own code: what was installed isn’t, nor what tools keep to themselves. */
function mayBeRead(name: string): boolean {
  return name !== 'node_modules' && (!name.startsWith('.') || name === '' || HIDDEN.has(name));
}

/** A folder whose files are watched, and what around it belongs to the app. */
export class WatchedFolder {
  private readonly watcher: FSWatcher;
  private readonly installs: FSWatcher;
  private readonly changes: GatheredChanges;
  /** Fulfilled once changes are seen. */
  readonly ready: Promise<void>;
  /** Folders that are watched whole: the app’s, and those around it that its files come from. */
  private readonly whole: Set<string>;

  /**
   * `told`: hears the paths, from the folder, that were written, added or removed; those that come close together at once. `workspace`: a folder around the app that may
   * be read; of it the files at its top are watched, and what `alsoIn` names.
   */
  constructor(
    folder: string,
    workspace: string | null,
    told: (changed: ReadonlySet<string>) => void,
    trouble: (message: string) => void,
  ) {
    this.changes = new GatheredChanges(told);
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
      watcher.on('all', (event, file) => this.changes.note(pathFrom(folder, file), event));
      watcher.on('error', (error) => trouble((error as Error).message));
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
    this.changes.close();
    await Promise.all([this.watcher.close(), this.installs.close()]);
  }

  /** Whether nothing of the app’s own can lie there, seen from the folder that is watched around it. */
  private isAside(file: string): boolean {
    for (const folder of this.whole)
      if (file === folder || file.startsWith(folder + path.sep))
        return !pathFrom(folder, file).split('/').every(mayBeRead);
    return true;
  }
}

/** Files that lie in a folder itself and may be read, whole paths; none of a folder that can’t be looked into. */
export function filesIn(folder: string): string[] {
  try {
    const found = fs.readdirSync(folder, { withFileTypes: true });
    return found.flatMap((e) => (e.isFile() && mayBeRead(e.name) ? [path.join(folder, e.name)] : []));
  } catch {
    return [];
  }
}
