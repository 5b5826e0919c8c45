import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { APPLICATION_ID, checkBeginning, checkSoundness } from './soundness.ts';
import { StoreTrouble } from './trouble.ts';

export type Store = Database.Database;

/**
 * Opens the database file (made when missing) and brings it to the newest form; throws StoreTrouble, with nothing changed,
 * when it is damaged, newer, or no database of this program.
 */
export function openStore(file: string, migrations: string): Store {
  fs.mkdirSync(path.dirname(file), { recursive: true });
  checkBeginning(file);
  const store = new Database(file);
  try {
    store.pragma('busy_timeout = 5000');
    checkSoundness(store, file);
    refuseNewer(store, migrations);
    store.pragma('journal_mode = WAL');
    store.pragma('foreign_keys = ON');
    migrate(store, file, migrations);
    store.pragma(`application_id = ${APPLICATION_ID}`);
    return store;
  } catch (error) {
    store.close();
    throw error;
  }
}

/** Opens a database that the server holds open, and has checked. */
export function joinStore(file: string): Store {
  const store = new Database(file, { fileMustExist: true });
  store.pragma('foreign_keys = ON');
  store.pragma('busy_timeout = 5000');
  return store;
}

function stepsIn(folder: string): string[] {
  return fs
    .readdirSync(folder)
    .filter((name) => /^\d{4}-.*\.sql$/.test(name))
    .sort();
}

function refuseNewer(store: Store, folder: string): void {
  const done = store.pragma('user_version', { simple: true }) as number;
  const known = stepsIn(folder).length;
  if (done > known)
    throw new StoreTrouble('newer', `The database has form ${done}, newer than this program’s form ${known}.`);
}

/**
 * Runs the numbered migrations that the file hasn't seen, all of them or none. A database of an older form is copied beside
 * itself first, so that an older program can still open it.
 */
function migrate(store: Store, file: string, folder: string): void {
  const steps = stepsIn(folder);
  const old = store.pragma('user_version', { simple: true }) as number;
  if (old > 0 && old < steps.length) copyBeside(store, `${file}.form-${old}`);
  store
    .transaction(() => {
      // Another process may have done it since.
      refuseNewer(store, folder);
      const done = store.pragma('user_version', { simple: true }) as number;
      for (const [at, name] of steps.entries()) {
        if (at < done) continue;
        store.exec(fs.readFileSync(path.join(folder, name), 'utf8'));
        store.pragma(`user_version = ${at + 1}`);
      }
    })
    .exclusive();
}

/** A whole copy of the database; one that is there already is of the same form, and stays. */
function copyBeside(store: Store, to: string): void {
  if (!fs.existsSync(to)) store.prepare('VACUUM INTO ?').run(to);
}
