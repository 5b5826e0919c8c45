import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';

export type Store = Database.Database;

/** Opens the database file (made when missing) and brings it to the newest form. */
export function openStore(file: string, migrations: string): Store {
  fs.mkdirSync(path.dirname(file), { recursive: true });
  const store = new Database(file);
  store.pragma('journal_mode = WAL');
  store.pragma('foreign_keys = ON');
  store.pragma('busy_timeout = 5000');
  migrate(store, file, migrations);
  return store;
}

/**
 * Runs the numbered migrations that the file hasn't seen, all of them or none. A database of an older form is copied beside
 * itself first, so that an older program can still open it.
 */
function migrate(store: Store, file: string, folder: string): void {
  const steps = fs
    .readdirSync(folder)
    .filter((name) => /^\d{4}-.*\.sql$/.test(name))
    .sort();
  const old = store.pragma('user_version', { simple: true }) as number;
  if (old > 0 && old < steps.length) copyBeside(store, `${file}.form-${old}`);
  store
    .transaction(() => {
      const done = store.pragma('user_version', { simple: true }) as number;
      if (done > steps.length)
        throw new Error(`the database has form ${done}, newer than this program's ${steps.length}; update the program`);
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
