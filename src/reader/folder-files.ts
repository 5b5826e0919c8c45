import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { readLimits } from './limits.ts';
import type { FileState, FileText } from './memory/files-memory.ts';
import { filesInMemory } from './memory/memory.ts';

/** Why a file isn't read, in words without a path of this machine. */
export class Unreadable extends Error {
  constructor(readonly reason: string) {
    super(reason);
    this.name = 'Unreadable';
  }
}

const CODES: Record<string, string> = {
  ENOENT: 'it isn’t there',
  EACCES: 'there is no right to read it',
  EPERM: 'there is no right to read it',
  ELOOP: 'its links lead in a circle',
  ENOTDIR: 'its path leads through something that is no folder',
  ENAMETOOLONG: 'its name is too long',
  EISDIR: 'it is a folder',
};

/** What went wrong with a file, in words. */
export function reasonOf(error: unknown): string {
  if (error instanceof Unreadable) return error.reason;
  const { code } = error as NodeJS.ErrnoException;
  return (code && CODES[code]) ?? `it can’t be read (${code ?? 'unknown reason'})`;
}

/** Texts that stand in the place of files, by their real paths. */
let inPlace: ReadonlyMap<string, string> = new Map();

/** Does something that reads a folder as if some of its files had other texts. `texts`: by path from the folder, all of files that are there. */
export function readWith<T>(folder: string, texts: ReadonlyMap<string, string>, work: () => T): T {
  const root = fs.realpathSync(folder);
  inPlace = new Map([...texts].map(([file, text]) => [fs.realpathSync.native(path.join(root, file)), text]));
  try {
    return work();
  } finally {
    inPlace = new Map();
  }
}

/** Where a file of a folder really lies. Throws Unreadable where that is outside of it. */
function placeInside(root: string, file: string): string {
  return checked(root, fs.realpathSync.native(path.resolve(root, file)));
}

function checked(root: string, real: string): string {
  if (real !== root && !real.startsWith(root === path.sep ? root : root + path.sep))
    throw new Unreadable('it leads out of the folder that is read');
  return real;
}

/** Does something with an opened file. Throws Unreadable for what is no regular file, or larger than what is read. */
function withOpened<T>(real: string, work: (handle: number, state: FileState) => T): T {
  const handle = fs.openSync(real, fs.constants.O_RDONLY | fs.constants.O_NONBLOCK | fs.constants.O_NOFOLLOW);
  try {
    const state = fs.fstatSync(handle);
    if (!state.isFile()) throw new Unreadable('it is no regular file');
    const { fileBytes } = readLimits();
    if (state.size > fileBytes)
      throw new Unreadable(
        `it is ${Math.round(state.size / 1e6)} MB large; files up to ${fileBytes / 1e6} MB are read (YOKELINE_READ_FILE_MB)`,
      );
    return work(handle, state);
  } finally {
    fs.closeSync(handle);
  }
}

/** Throws what went wrong with a file in the words of Unreadable. */
function inWords<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw new Unreadable(reasonOf(error));
  }
}

/**
 * Reads a file of a folder. Its real place must lie in the folder, and it must be a regular file of at most the largest size. `root` is a real
 * path; `file` is absolute, or relative to it. Throws Unreadable with the reason. All that is read of an app is read by this or by its neighbours here.
 */
export function readInside(root: string, file: string): Buffer {
  return inWords(() => {
    const real = placeInside(root, file);
    const other = inPlace.get(real);
    return other === undefined ? withOpened(real, (handle) => fs.readFileSync(handle)) : Buffer.from(other);
  });
}

/** The size of a file, in bytes, as `readInside` would find it. */
export function bytesInside(root: string, file: string): number {
  return inWords(() => {
    const real = placeInside(root, file);
    const other = inPlace.get(real);
    return other === undefined ? withOpened(real, (_, { size }) => size) : Buffer.byteLength(other);
  });
}

/** The text of a file with its size; as an earlier reading found it where the file is as it was. See `readInside`. */
export function sizedTextInside(root: string, file: string): FileText {
  return inWords(() => {
    const files = filesInMemory();
    const at = files?.placeOf(path.resolve(root, file));
    const now = at && fs.lstatSync(at);
    const isLink = !now || now.isSymbolicLink();
    const real = isLink ? placeInside(root, file) : checked(root, at);
    const other = inPlace.get(real);
    if (other !== undefined) return { text: other, bytes: Buffer.byteLength(other) };
    const known = files?.recall(real, isLink ? fs.lstatSync(real) : now);
    if (known !== undefined) return known;
    return withOpened(real, (handle, state) => {
      const raw = fs.readFileSync(handle);
      const found = { text: raw.toString('utf8'), bytes: raw.length };
      files?.keep(real, state, found);
      return found;
    });
  });
}

/** The text of a file; see `readInside`. */
export function textInside(root: string, file: string): string {
  return sizedTextInside(root, file).text;
}

/** The text of a file without which the app isn't known. Throws InputError with `title`, and with what it is for, where it can't be read. */
export function textNeeded(root: string, file: string, title: string, role: string, advice = ''): string {
  try {
    return textInside(root, file);
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    throw new InputError(title, `${role}, but ${error.reason}.${advice}`, file);
  }
}

/** The text of a file that need not be there; null where it isn't, or can't be read. */
export function textIfThere(root: string, file: string): string | null {
  try {
    return textInside(root, file);
  } catch {
    return null;
  }
}
