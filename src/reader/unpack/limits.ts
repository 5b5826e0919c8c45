import path from 'node:path';
import { InputError } from '../../core/errors.ts';

/** What an archive may hold. A small file that unpacks to a huge one is an attack or a mistake; either way it stops. */
export interface Limits {
  files: number;
  /** Of one file, unpacked. */
  fileBytes: number;
  /** Of all files together, unpacked. */
  totalBytes: number;
  /** Unpacked to packed, looked at from `ratioFrom` bytes on. */
  ratio: number;
  ratioFrom: number;
}

export const LIMITS: Limits = {
  files: 200_000,
  fileBytes: 200_000_000,
  totalBytes: 2_000_000_000,
  ratio: 120,
  ratioFrom: 20_000_000,
};

/** Counts what comes out of an archive and stops it when it is too much. */
export class Meter {
  private files = 0;
  private bytes = 0;

  constructor(
    private readonly archive: string,
    private readonly packedBytes: number,
    private readonly limits: Limits,
  ) {}

  file(name: string): void {
    this.files++;
    if (this.files > this.limits.files)
      throw this.refusal(`It holds more than ${this.limits.files} files. Leave out what the app doesn't ship.`, name);
  }

  /** So many more bytes of a file, of which `own` have come so far. */
  more(name: string, bytes: number, own: number): void {
    this.bytes += bytes;
    const { fileBytes, totalBytes, ratio, ratioFrom } = this.limits;
    if (own > fileBytes) throw this.refusal(`One file is larger than ${megabytes(fileBytes)}.`, name);
    if (this.bytes > totalBytes) throw this.refusal(`Unpacked it is larger than ${megabytes(totalBytes)}.`, name);
    if (this.bytes > ratioFrom && this.bytes > this.packedBytes * ratio)
      throw this.refusal(`It unpacks to more than ${ratio} times its size, as no app does.`, name);
  }

  /** Checks a name and gives where it goes; throws for names that lead out of the archive. */
  place(root: string, name: string): string {
    const plain = name.replaceAll('\\', '/');
    if (plain.startsWith('/') || /^[a-z]:/i.test(plain))
      throw this.refusal('It holds a file with a whole path. Pack it again from inside its folder.', name);
    if (plain.split('/').includes('..'))
      throw this.refusal('It holds a file that leads out of it (“..”). Pack it again from inside its folder.', name);
    if (plain.includes('\0')) throw this.refusal('It holds a file whose name no system takes.', name);
    return path.join(root, plain);
  }

  /** Checks that something can be written under a name; throws for names that no file can have. */
  named(name: string): void {
    const parts = name.replaceAll('\\', '/').split('/');
    const last = parts.at(-1);
    if (last === '' || last === '.') throw this.refusal('It holds a file without a name.', name);
    if (parts.some((p) => Buffer.byteLength(p) > LONGEST_NAME) || Buffer.byteLength(name) > LONGEST_PATH)
      throw this.refusal(`It holds a file whose name is too long (over ${LONGEST_NAME} bytes).`, name);
  }

  refusal(why: string, name: string): InputError {
    return new InputError('Archive refused', `${why} Nothing was kept.`, `${this.archive}: ${short(name)}`);
  }
}

/** What file systems take, in bytes. */
const LONGEST_NAME = 255;
const LONGEST_PATH = 2000;

function megabytes(bytes: number): string {
  return `${Math.round(bytes / 1e6)} MB`;
}

function short(name: string): string {
  return name.length > 120 ? `…${name.slice(-119)}` : name;
}
