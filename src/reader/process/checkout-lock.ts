import fs from 'node:fs';
import path from 'node:path';

/** How often it is looked whether a checkout is over, in ms. */
const LOOK_MS = 50;

/** A lock that is older than this was left behind by a program that broke off. */
const LEFT_MS = 60_000;

/**
 * Tells while git writes the files of a folder: checkouts, merges, rebases and stashes hold a lock on the index of the repository meanwhile (git’s own
 * convention). What stands in the folder then is of no commit, and of nobody’s making.
 */
export class CheckoutLock {
  constructor(private readonly folder: string) {}

  get isHeld(): boolean {
    // A folder may become a repository, or another kind of work tree, at any time.
    const records = recordsOf(this.folder);
    const held =
      records === null ? undefined : fs.statSync(path.join(records, 'index.lock'), { throwIfNoEntry: false });
    return held !== undefined && Date.now() - held.mtimeMs < LEFT_MS;
  }

  /** Waits until it isn’t held any more, or nobody wants to know. */
  async released(unwanted: () => boolean): Promise<void> {
    while (this.isHeld && !unwanted()) await new Promise((go) => setTimeout(go, LOOK_MS));
  }
}

/** Where the repository around a folder keeps its records: of further work trees and submodules a file says it. Null outside of any. */
function recordsOf(folder: string): string | null {
  for (let at = folder; ; at = path.dirname(at)) {
    const place = path.join(at, '.git');
    const there = fs.statSync(place, { throwIfNoEntry: false });
    if (there?.isDirectory()) return place;
    if (there?.isFile()) {
      const [, named] = /^gitdir: (.+?)\s*$/m.exec(fs.readFileSync(place, 'utf8')) ?? [];
      return named === undefined ? null : path.resolve(at, named);
    }
    if (at === path.dirname(at)) return null;
  }
}
