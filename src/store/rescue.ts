import fs from 'node:fs';
import path from 'node:path';
import type { Store } from './database.ts';

/** What SQLite keeps beside a database, which belongs to it. */
const BESIDE = ['', '-wal', '-shm'];

/** Names of the copies that were made beside a database before it was brought to a newer form, newest form first. */
export function copiesBeside(file: string): string[] {
  const begin = `${path.basename(file)}.form-`;
  const form = (name: string) => Number(name.slice(begin.length));
  try {
    return fs
      .readdirSync(path.dirname(file))
      .filter((name) => name.startsWith(begin) && Number.isInteger(form(name)))
      .sort((a, b) => form(b) - form(a));
  } catch {
    return [];
  }
}

/** A name beside a database that nothing has yet. */
function keptName(file: string): string {
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  let to = `${file}.kept-${stamp}`;
  for (let more = 2; BESIDE.some((end) => fs.existsSync(to + end)); more++) to = `${file}.kept-${stamp}-${more}`;
  return to;
}

/** Writes what an open database holds beside its file, which is gone or another one, before it is let go of; gives the name. */
export function keepHeld(store: Store, file: string): string {
  const to = keptName(file);
  store.prepare('VACUUM INTO ?').run(to);
  return path.basename(to);
}

/** Moves a database and what belongs to it aside, so that nothing of it is lost; gives its new name, null where there was no database. */
export function keepAside(file: string): string | null {
  if (!BESIDE.some((end) => fs.existsSync(file + end))) return null;
  const to = keptName(file);
  for (const end of BESIDE) if (fs.existsSync(file + end)) fs.renameSync(file + end, to + end);
  return fs.existsSync(to) ? path.basename(to) : null;
}

/** Writes what an open database holds into its file again, when the file was deleted or replaced under it. */
export function putBack(store: Store, file: string): string | null {
  // Written beside first: a disk that is full must not leave half of it where the whole was.
  const whole = `${file}.whole`;
  fs.rmSync(whole, { force: true });
  store.prepare('VACUUM INTO ?').run(whole);
  const kept = keepAside(file);
  fs.renameSync(whole, file);
  return kept;
}

/** Puts a copy of an earlier form in the place of the database; the copy stays as well. */
export function takeCopy(file: string, name: string): string | null {
  const from = path.join(path.dirname(file), name);
  const kept = keepAside(file);
  fs.copyFileSync(from, file, fs.constants.COPYFILE_EXCL);
  return kept;
}
