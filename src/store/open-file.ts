import fs from 'node:fs';
import path from 'node:path';
import { openStore, type Store } from './database.ts';
import { StoreTrouble } from './trouble.ts';

/**
 * A database file that stays open, and is looked at on each use: what is written to a file that was deleted or replaced
 * meanwhile would be confirmed and lost.
 */
export class OpenFile {
  readonly store: Store;
  private readonly inode: bigint;
  private size: bigint;

  constructor(
    readonly file: string,
    migrations: string,
  ) {
    this.store = openStore(file, migrations);
    const { ino, size } = fs.statSync(file, { bigint: true });
    this.inode = ino;
    this.size = size;
  }

  /** The store, while its file is the one that was opened; throws StoreTrouble otherwise. */
  sound(): Store {
    const now = fs.statSync(this.file, { bigint: true, throwIfNoEntry: false });
    const name = path.basename(this.file);
    if (now?.ino !== this.inode)
      throw new StoreTrouble(
        'gone',
        `The database “${name}” was ${now ? 'replaced' : 'deleted or moved'} while the server was running.`,
      );
    // A database grows, or stays as large as it is: pages that become free are used again.
    if (now.size < this.size) throw new StoreTrouble('damaged', `The database “${name}” was cut while it was open.`);
    this.size = now.size;
    return this.store;
  }
}
