import fs from 'node:fs';
import path from 'node:path';
import { Readable, Transform, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import tar from 'tar-stream';
import { type Entry, open, type ZipFile } from 'yauzl';
import { InputError } from '../../core/errors.ts';
import { beginStep } from '../watch.ts';
import { LIMITS, type Limits, Meter } from './limits.ts';

/** What came of an archive. */
export interface Unpacked {
  /** The folder to read: where everything lies, or the one folder that holds everything. */
  folder: string;
  files: number;
  /** Links in it; none was followed. */
  links: string[];
}

/** Never needed to read an app, and often many. */
const LEFT_OUT = /(^|\/)(\.git|\.hg|\.svn|\.cache)\//;
const LINK = 0o120000;
const KIND = 0o170000;

/**
 * Unpacks a `.zip` or `.tar.gz` into an empty folder, within limits. Throws InputError that names the entry for names
 * that lead outside, for too much, and for damaged archives; the caller removes the folder then. Links are left out.
 */
export async function unpack(file: string, name: string, into: string, limits: Limits = LIMITS): Promise<Unpacked> {
  const meter = new Meter(name, fs.statSync(file).size, limits);
  try {
    const start = firstBytes(file);
    if (start.startsWith('504b')) return topOf(into, await unpackZip(file, into, meter));
    if (start.startsWith('1f8b')) return topOf(into, await unpackTar(file, into, meter));
  } catch (error) {
    if (error instanceof InputError) throw error;
    throw new InputError(
      'Archive can’t be read',
      `It is damaged or holds names that lead outside (${withoutPaths(error)}). Pack it again.`,
      name,
    );
  }
  throw new InputError('Not an archive', 'Bring a .zip or .tar.gz file, or drop the folder itself.', name);
}

/** The words of an error without paths of this machine. */
function withoutPaths(error: unknown): string {
  return String((error as Error).message).replace(/(?:'|")?\/[^\s'"]*(?:'|")?/g, '…');
}

type Contents = Pick<Unpacked, 'files' | 'links'>;

async function unpackZip(file: string, into: string, meter: Meter): Promise<Contents> {
  const zip = await new Promise<ZipFile>((done, fail) =>
    open(file, { lazyEntries: true, autoClose: false }, (error, opened) => (error ? fail(error) : done(opened))),
  );
  const contents: Contents = { files: 0, links: [] };
  try {
    await new Promise<void>((done, fail) => {
      zip.on('error', fail);
      zip.on('end', done);
      zip.on('entry', (entry: Entry) => {
        takeZipEntry(zip, entry, into, meter, contents).then(() => zip.readEntry(), fail);
      });
      zip.readEntry();
    });
  } finally {
    zip.close();
  }
  return contents;
}

async function takeZipEntry(zip: ZipFile, entry: Entry, into: string, meter: Meter, contents: Contents): Promise<void> {
  const name = entry.fileName;
  const target = meter.place(into, name);
  if (name.endsWith('/') || LEFT_OUT.test(name)) return;
  if (((entry.externalFileAttributes >>> 16) & KIND) === LINK) {
    contents.links.push(name);
    return;
  }
  const stream = await new Promise<Readable>((done, fail) =>
    zip.openReadStream(entry, (error, opened) => (error ? fail(error) : done(opened))),
  );
  await save(stream, name, target, meter, contents);
}

async function unpackTar(file: string, into: string, meter: Meter): Promise<Contents> {
  const contents: Contents = { files: 0, links: [] };
  const entries = tar.extract();
  const feeding = pipeline(fs.createReadStream(file), createGunzip(), entries);
  // The failure of the feeding shows as the end of the entries; it is thrown below.
  feeding.catch(() => {});
  for await (const entry of entries) {
    const { name, type } = entry.header;
    const target = meter.place(into, name);
    if (type === 'symlink' || type === 'link') contents.links.push(name);
    if (type === 'file' && !LEFT_OUT.test(name)) await save(Readable.from(entry), name, target, meter, contents);
    // What is left out is unpacked all the same on the way to what comes after it.
    else await pipeline(Readable.from(entry), measured(meter, name), new Writable({ write: (_, __, done) => done() }));
  }
  await feeding;
  return contents;
}

async function save(from: Readable, name: string, target: string, meter: Meter, contents: Contents): Promise<void> {
  meter.file(name);
  meter.named(name);
  beginStep(`unpacking ${name}`);
  try {
    fs.mkdirSync(path.dirname(target), { recursive: true });
    await pipeline(from, measured(meter, name), fs.createWriteStream(target, { flags: 'wx' }));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (error instanceof InputError || !code?.startsWith('E') || code.startsWith('ERR')) throw error;
    throw meter.refusal(
      `It holds a file that can’t be written (${code === 'EEXIST' ? 'its name is there twice' : code}).`,
      name,
    );
  }
  contents.files++;
}

/** Counts what goes through, and ends it when it is too much. */
function measured(meter: Meter, name: string): Transform {
  let own = 0;
  return new Transform({
    transform(piece: Buffer, _, done) {
      own += piece.length;
      try {
        meter.more(name, piece.length, own);
        done(null, piece);
      } catch (error) {
        done(error as Error);
      }
    },
  });
}

function topOf(into: string, contents: Contents): Unpacked {
  let folder = into;
  for (;;) {
    const inside = fs.existsSync(folder) ? fs.readdirSync(folder, { withFileTypes: true }) : [];
    if (inside.length !== 1 || !inside[0].isDirectory() || inside[0].name === 'src') break;
    folder = path.join(folder, inside[0].name);
  }
  return { folder, ...contents };
}

function firstBytes(file: string): string {
  const handle = fs.openSync(file, 'r');
  const start = Buffer.alloc(4);
  fs.readSync(handle, start, 0, 4, 0);
  fs.closeSync(handle);
  return start.toString('hex');
}
