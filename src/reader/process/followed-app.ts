import fs from 'node:fs';
import path from 'node:path';
import { brokenMeanwhile } from '../../core/check/broken-meanwhile.ts';
import { InputError } from '../../core/errors.ts';
import { foldersAround } from './around-app.ts';
import { CheckoutLock } from './checkout-lock.ts';
import { KeptReading } from './kept-reading.ts';
import { UnseenChanges } from './unseen-changes.ts';
import { WatchedFolder } from './watched-folder.ts';
import type { Read, ReadWork } from './work.ts';

/** What happened to an app that is followed. */
export type Followed =
  /**
   * It was read anew, after these files were saved. `during`: while the reading before went on, which may have seen them already: where nothing is
   * other than after that one, there is nothing to tell.
   */
  | { kind: 'read'; read: Read; changed: string[]; during: boolean }
  /** It can't be read as it is now; what was read last stays. */
  | { kind: 'broken'; changed: string[]; at: { path: string; line: number; message: string }[] }
  | { kind: 'refused'; changed: string[]; error: InputError }
  /** Changes can't be seen. */
  | { kind: 'trouble'; message: string };

/** So long after a reading it is looked whether something was written that the watcher missed, and from then on as often, in ms. */
const LOOK_MS = 1000;
const LOOK_AGAIN_MS = 10_000;

/** Reads an app's folder, and again whenever its files change: one reading at a time, and the newest state in the end. */
export class FollowedApp {
  private readonly reading: KeptReading;
  private readonly watched: WatchedFolder;
  /** What was saved since the reading before began. */
  private pending: Set<string> | null = null;
  private busy = false;
  private last: Read | null = null;
  private closed = false;
  /** Files that were saved since the last reading that could be used. */
  private readonly since = new Set<string>();
  private readonly unseen: UnseenChanges;
  /** While git writes the folder, nothing in it is worth reading. */
  private readonly checkout: CheckoutLock;
  /** When the last reading began, in ms since the epoch. */
  private began = 0;
  private look: NodeJS.Timeout | null = null;
  private readonly folder: string;
  /** The folder around the app whose files may be read too. */
  private readonly workspace: string | null;
  /** Folders around the app that its files come from. */
  private around: readonly string[] = [];

  private constructor(
    work: ReadWork & { folder: string },
    { script, memory }: { script: string; memory: string | null },
    private readonly told: (by: Followed) => void,
  ) {
    const folder = fs.realpathSync(work.folder);
    this.folder = folder;
    this.workspace = workspaceAround(folder, work.workspace);
    this.unseen = new UnseenChanges(folder);
    this.checkout = new CheckoutLock(folder);
    this.reading = new KeptReading({ ...work, folder }, script, memory);
    this.watched = new WatchedFolder(
      folder,
      this.workspace,
      (changed) => {
        this.pending = new Set([...(this.pending ?? []), ...changed]);
        void this.readOn();
      },
      (message) => told({ kind: 'trouble', message }),
    );
  }

  /**
   * Begins to follow, and gives what is read first. `script`: the file in which the process of readings begins, as built; `memory`: the folder
   * in which they remember. Rejects with an InputError for what can't be read.
   */
  static async begin(
    work: ReadWork & { folder: string },
    how: { script: string; memory: string | null },
    told: (by: Followed) => void,
  ): Promise<{ followed: FollowedApp; first: Read }> {
    const followed = new FollowedApp(work, how, told);
    try {
      followed.busy = true;
      await followed.watched.ready;
      // What was saved meanwhile may have come too late for it.
      do {
        await followed.settled();
        followed.pending = null;
        followed.began = Date.now();
        followed.took(await followed.reading.read());
      } while (followed.pending || followed.checkout.isHeld);
    } catch (error) {
      await followed.close();
      throw error;
    }
    followed.busy = false;
    followed.lookSoon();
    return { followed, first: followed.last! };
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.look) clearTimeout(this.look);
    this.reading.close();
    await this.watched.close();
  }

  /** The last state that is good; what it took from around the app is watched from now on. */
  private took(read: Read): void {
    this.last = read;
    if (this.workspace === null) return;
    this.around = foldersAround(this.folder, this.workspace, this.reading.around);
    this.watched.alsoIn(this.around);
  }

  private async readOn(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let during = false; this.pending && !this.closed; during = true) {
      await this.settled();
      if (this.closed) break;
      const saved = this.pending;
      this.pending = null;
      for (const file of saved) this.since.add(file);
      const by = await this.readOnce(during);
      // What was read while a checkout went on is neither what was there before nor what is there now.
      if (by === null) this.pending = new Set([...(this.pending ?? []), ...saved]);
      else if (!this.closed) this.told(by);
    }
    this.busy = false;
    this.lookSoon();
  }

  /** Once it is quiet, what was written since the last reading began and wasn't told by the watcher is read as well. */
  private lookSoon(ms = LOOK_MS): void {
    if (this.look) clearTimeout(this.look);
    if (this.closed) return;
    this.look = setTimeout(() => void this.lookForUnseen(), ms);
    this.look.unref();
  }

  private async lookForUnseen(): Promise<void> {
    const read = (this.last?.snapshot.modules ?? []).map((m) => m.path);
    const around = this.workspace === null ? [] : [this.workspace, ...this.around];
    const changed = await this.unseen.since(
      this.began,
      new Set([...read, ...this.reading.around, ...this.since]),
      around,
    );
    if (this.closed || this.busy) return;
    if (changed.length === 0) {
      this.lookSoon(LOOK_AGAIN_MS);
      return;
    }
    this.pending = new Set([...(this.pending ?? []), ...changed]);
    void this.readOn();
  }

  private settled(): Promise<void> {
    return this.checkout.released(() => this.closed);
  }

  /** Reads once; null where a checkout has begun meanwhile. */
  private async readOnce(during: boolean): Promise<Followed | null> {
    const changed = [...this.since].sort();
    this.began = Date.now();
    try {
      const read = await this.reading.read();
      if (this.checkout.isHeld) return null;
      const at = this.last ? brokenMeanwhile(this.last.snapshot, read.snapshot, this.since) : [];
      if (at.length > 0) return { kind: 'broken', changed, at };
      this.took(read);
      this.since.clear();
      return { kind: 'read', read, changed, during };
    } catch (error) {
      if (this.checkout.isHeld) return null;
      if (error instanceof InputError) return { kind: 'refused', changed, error };
      // Nobody waits for this promise: what is thrown here would end the program that follows.
      return { kind: 'trouble', message: error instanceof Error ? error.message : String(error) };
    }
  }
}

/** Null where none was named, or the reading will say what is wrong with it. */
function workspaceAround(folder: string, named: string | null): string | null {
  if (named === null) return null;
  try {
    return fs.realpathSync(path.resolve(folder, named));
  } catch {
    return null;
  }
}
