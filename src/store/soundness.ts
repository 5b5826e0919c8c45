import fs from 'node:fs';
import path from 'node:path';
import type Database from 'better-sqlite3';
import { StoreTrouble } from './trouble.ts';

/** How a database file begins (SQLite file format, section 1.3). */
const MAGIC = 'SQLite format 3\0';

/** The mark of this program in its database files: “YOKE”. */
export const APPLICATION_ID = 0x594f4b45;

/** Looks at a file before it is opened, since opening writes: it must be missing, or begin as a database does. */
export function checkBeginning(file: string): void {
  const stat = fs.statSync(file, { throwIfNoEntry: false });
  if (!stat) return;
  const name = path.basename(file);
  if (!stat.isFile()) throw new StoreTrouble('foreign', `“${name}” is no file.`);
  if (stat.size === 0) throw new StoreTrouble('damaged', `The database “${name}” is empty.`);
  const head = Buffer.alloc(MAGIC.length);
  const opened = fs.openSync(file, 'r');
  const read = fs.readSync(opened, head, 0, head.length, 0);
  fs.closeSync(opened);
  if (head.subarray(0, read).toString('latin1') !== MAGIC)
    throw new StoreTrouble('foreign', `“${name}” is no database.`);
}

/** Checks that the content of an opened database holds together, and that it is one of this program. */
export function checkSoundness(store: Database.Database, file: string): void {
  const name = path.basename(file);
  const found = damage(store);
  if (found !== null) throw new StoreTrouble('damaged', `The database “${name}” is damaged: ${found}.`);
  const mark = store.pragma('application_id', { simple: true });
  const tables = new Set(store.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").pluck().all());
  if (mark === APPLICATION_ID || (mark === 0 && (tables.size === 0 || (tables.has('projects') && tables.has('plans')))))
    return;
  throw new StoreTrouble('foreign', `“${name}” is a database of another program.`);
}

/** The first damage that SQLite's own quick check finds, in its words; null: none. */
function damage(store: Database.Database): string | null {
  try {
    const said = String(store.pragma('quick_check(1)', { simple: true }));
    return said === 'ok' ? null : said.split('\n').filter(Boolean).slice(-1)[0];
  } catch (error) {
    if (isDamage(error)) return (error as Error).message;
    throw error;
  }
}

/** The code that SQLite or the system gave an error; empty where it has none. */
export function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
}

/** Whether SQLite failed because the file's content is broken. */
export function isDamage(error: unknown): boolean {
  const code = codeOf(error);
  return code.startsWith('SQLITE_CORRUPT') || code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_IOERR_SHORT_READ');
}
