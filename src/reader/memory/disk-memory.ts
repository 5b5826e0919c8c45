import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { deserialize, serialize } from 'node:v8';
import Database from 'better-sqlite3';
import type { Memory } from './memory.ts';

/** What wasn't asked for in so many days is forgotten; and all of it when the file is larger than this, in bytes. */
const DAYS = 30;
const MOST_BYTES = 768e6;
/** So many entries are written at once. */
const BATCH = 4000;
const DAY_MS = 86_400_000;
/** Others that write at the same time are waited for so long, in ms. */
const WAIT_MS = 4000;

/**
 * What readings found out, in a file of its own that any number of readings share. It may be deleted at any time. Each version of the
 * reader has its own file, so that none gets what another one found.
 */
export class DiskMemory implements Pick<Memory, 'recall' | 'keep'> {
  private readonly db: Database.Database;
  private readonly get: Database.Statement<[string]>;
  private readonly pending = new Map<string, unknown>();
  /** Entries that were asked for, and that today hasn't noted yet. */
  private readonly used = new Set<string>();
  private readonly today: number;
  /** Once for each process is enough. */
  private hasForgotten = false;

  private constructor(file: string, now: number) {
    this.today = Math.floor(now / DAY_MS);
    this.db = new Database(file, { timeout: WAIT_MS });
    this.db.pragma('journal_mode = WAL');
    // What a crash loses is found out again.
    this.db.pragma('synchronous = OFF');
    this.db.exec(
      'CREATE TABLE IF NOT EXISTS known (key TEXT PRIMARY KEY, day INTEGER NOT NULL, value BLOB NOT NULL) STRICT;' +
        'CREATE INDEX IF NOT EXISTS known_by_day ON known (day)',
    );
    this.get = this.db.prepare('SELECT value, day FROM known WHERE key = ?');
  }

  /** Opens the memory in a folder; null where that can't be: readings go on without it. */
  static open(folder: string, now = Date.now()): DiskMemory | null {
    try {
      fs.mkdirSync(folder, { recursive: true });
      const name = `readings-${readerVersion()}.sqlite`;
      removeOthers(folder, name, now);
      return new DiskMemory(path.join(folder, name), now);
    } catch {
      return null;
    }
  }

  recall(key: string): unknown {
    const waiting = this.pending.get(key);
    if (waiting !== undefined) return waiting;
    try {
      const row = this.get.get(key) as { value: Buffer; day: number } | undefined;
      if (!row) return undefined;
      if (row.day < this.today) this.used.add(key);
      return deserialize(row.value);
    } catch {
      return undefined;
    }
  }

  keep(key: string, value: unknown): void {
    this.pending.set(key, value);
    if (this.pending.size >= BATCH) this.write();
  }

  /** Writes what isn't written yet, and forgets what nobody has needed for long. */
  settle(): void {
    this.write();
    if (this.hasForgotten) return;
    this.hasForgotten = true;
    try {
      this.db.prepare('DELETE FROM known WHERE day < ?').run(this.today - DAYS);
      const pages = this.db.pragma('page_count', { simple: true }) as number;
      const size = this.db.pragma('page_size', { simple: true }) as number;
      if (pages * size <= MOST_BYTES) return;
      this.db.exec('DELETE FROM known');
      this.db.exec('VACUUM');
    } catch {
      // Somebody else is at it.
    }
  }

  close(): void {
    this.db.close();
  }

  private write(): void {
    const entries = [...this.pending];
    const used = [...this.used];
    this.pending.clear();
    this.used.clear();
    try {
      const put = this.db.prepare('INSERT OR REPLACE INTO known (key, value, day) VALUES (?, ?, ?)');
      const touch = this.db.prepare('UPDATE known SET day = ? WHERE key = ?');
      this.db
        .transaction(() => {
          for (const [key, value] of entries) put.run(key, serialize(value), this.today);
          for (const key of used) touch.run(this.today, key);
        })
        .immediate();
    } catch {
      // A full disk, or others who write for long: it is found out again next time.
    }
  }
}

/** Files of other versions that nobody has used for long. */
function removeOthers(folder: string, own: string, now: number): void {
  for (const name of fs.readdirSync(folder)) {
    if (!/^readings-.*\.sqlite/.test(name) || name.startsWith(own)) continue;
    const file = path.join(folder, name);
    if (now - fs.statSync(file).mtimeMs > DAYS * DAY_MS) fs.rmSync(file, { force: true });
  }
}

/** A short name of the reader's own code with the packages that it parses with: whatever changes in it, nothing older is used. */
function readerVersion(): string {
  const of = createHash('sha1');
  const reader = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
  const code = [reader, path.join(path.dirname(reader), 'core')].flatMap((folder) =>
    (fs.readdirSync(folder, { recursive: true }) as string[])
      .filter((f) => /\.[jt]s$/.test(f))
      .sort()
      .map((f) => path.join(folder, f)),
  );
  for (const file of code) of.update(fs.readFileSync(file));
  return of.update(process.version).update(lockText()).digest('hex').slice(0, 16);
}

/** What says which versions of packages are installed. */
function lockText(): string {
  for (let at = path.dirname(fileURLToPath(import.meta.url)); path.dirname(at) !== at; at = path.dirname(at)) {
    const lock = path.join(at, 'node_modules', '.package-lock.json');
    if (fs.existsSync(lock)) return fs.readFileSync(lock, 'utf8');
  }
  return '';
}
