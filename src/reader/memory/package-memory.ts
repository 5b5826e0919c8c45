import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { type PackageTime, withPackageTimes } from '../../core/rehearsals/package-times.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';

const FILE = 'package-times.sqlite';
/** More than this of all files isn’t kept: those that were measured longest ago go. */
const MOST = 50_000;
/** An earlier measurement counts no more than so many later ones. */
const COUNTED = 5;
/** Others that write at the same time are waited for so long, in ms. */
const WAIT_MS = 4000;

/**
 * What rehearsals told of packages, for all apps that are read on this machine: beside what readings found out, in a file of its own, which may be deleted at any
 * time. Gives whether it was kept. `now`: in ms.
 */
export function keepPackageTimes(folder: string, times: readonly PackageTime[], now: number): boolean {
  try {
    fs.mkdirSync(folder, { recursive: true });
    const db = new Database(path.join(folder, FILE), { timeout: WAIT_MS });
    try {
      db.pragma('journal_mode = WAL');
      db.exec(
        'CREATE TABLE IF NOT EXISTS times (name TEXT NOT NULL, file TEXT NOT NULL, bytes INTEGER NOT NULL, ms REAL NOT NULL, ' +
          'count INTEGER NOT NULL, at INTEGER NOT NULL, PRIMARY KEY (name, file, bytes)) STRICT',
      );
      const put = db.prepare(
        'INSERT INTO times (name, file, bytes, ms, count, at) VALUES (@name, @file, @bytes, @ms, 1, @now) ON CONFLICT (name, file, bytes) ' +
          `DO UPDATE SET ms = (ms * count + excluded.ms) / (count + 1), count = MIN(count + 1, ${COUNTED}), at = excluded.at`,
      );
      db.transaction(() => {
        for (const time of times) put.run({ ...time, now });
        db.prepare('DELETE FROM times WHERE rowid IN (SELECT rowid FROM times ORDER BY at DESC LIMIT -1 OFFSET ?)').run(
          MOST,
        );
      }).immediate();
      return true;
    } finally {
      db.close();
    }
  } catch {
    // A full disk, or a file that somebody else made: other apps are reckoned as before.
    return false;
  }
}

/** A snapshot that says of the modules of packages what they took in other apps on this machine; as it is where nothing is known. */
export function withKeptTimes(folder: string, snapshot: Snapshot): Snapshot {
  const file = path.join(folder, FILE);
  if (!fs.existsSync(file)) return snapshot;
  try {
    const db = new Database(file, { readonly: true, timeout: WAIT_MS });
    try {
      const get = db.prepare('SELECT name, file, bytes, ms FROM times WHERE name = ? ORDER BY at DESC');
      return withPackageTimes(snapshot, (name) => get.all(name) as PackageTime[]);
    } finally {
      db.close();
    }
  } catch {
    return snapshot;
  }
}
