import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { readLimits } from './limits.ts';

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

/**
 * Reads a file of a folder: the one way in which anything of an app is read. Its real place must lie in the folder, and it
 * must be a regular file of at most the largest size. `root` is a real path; `file` is absolute, or relative to it.
 * Throws Unreadable with the reason.
 */
export function readInside(root: string, file: string): Buffer {
  try {
    const real = fs.realpathSync.native(path.resolve(root, file));
    if (real !== root && !real.startsWith(root === path.sep ? root : root + path.sep))
      throw new Unreadable('it leads out of the folder that is read');
    const other = inPlace.get(real);
    if (other !== undefined) return Buffer.from(other);
    const handle = fs.openSync(real, fs.constants.O_RDONLY | fs.constants.O_NONBLOCK | fs.constants.O_NOFOLLOW);
    try {
      const { size, isFile } = statOf(handle);
      if (!isFile) throw new Unreadable('it is no regular file');
      const { fileBytes } = readLimits();
      if (size > fileBytes)
        throw new Unreadable(
          `it is ${Math.round(size / 1e6)} MB large; files up to ${fileBytes / 1e6} MB are read (YOKELINE_READ_FILE_MB)`,
        );
      return fs.readFileSync(handle);
    } finally {
      fs.closeSync(handle);
    }
  } catch (error) {
    throw new Unreadable(reasonOf(error));
  }
}

function statOf(handle: number): { size: number; isFile: boolean } {
  const stat = fs.fstatSync(handle);
  return { size: stat.size, isFile: stat.isFile() };
}

/** The text of a file; see readInside. */
export function textInside(root: string, file: string): string {
  return readInside(root, file).toString('utf8');
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
