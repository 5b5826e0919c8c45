import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { Archive } from '../reader/process/work.ts';
import { dataFolder } from './context.ts';
import { Problem } from './problem.ts';

const MOST_BYTES = 500_000_000;
const FILE = 'body';

interface Bounds {
  /** Largest body, in bytes. */
  most: number;
  none: () => Problem;
  tooLarge: () => Problem;
}

/**
 * Puts the body of a request into a folder of its own, piece by piece; who asked for it removes the folder. Nothing is left
 * behind when it breaks off.
 */
export async function receiveFile(request: Request, bounds: Bounds): Promise<{ folder: string; file: string }> {
  if (!request.body) throw bounds.none();
  if (Number(request.headers.get('content-length') ?? 0) > bounds.most) throw bounds.tooLarge();
  const folder = path.join(dataFolder(), 'uploads', randomUUID());
  fs.mkdirSync(folder, { recursive: true });
  let bytes = 0;
  const limited = new Transform({
    transform(piece: Buffer, _, done) {
      bytes += piece.length;
      if (bytes <= bounds.most) done(null, piece);
      else done(bounds.tooLarge());
    },
  });
  try {
    const body = Readable.fromWeb(request.body as ReadableStream<Uint8Array>);
    await pipeline(body, limited, fs.createWriteStream(path.join(folder, FILE)));
  } catch (error) {
    fs.rmSync(folder, { recursive: true, force: true });
    throw error;
  }
  return { folder, file: FILE };
}

/** Takes in an archive that is to be read. */
export async function receiveArchive(request: Request, name: string): Promise<Archive> {
  const received = await receiveFile(request, {
    most: MOST_BYTES,
    none: () => new Problem('no-archive', 'No archive', 'The body of the request must be the archive.'),
    tooLarge: () => {
      const detail = `It is larger than ${MOST_BYTES / 1e6} MB. Type the path of its folder instead, or leave out what the app doesn’t ship.`;
      return new Problem('archive-too-large', 'Archive too large', detail);
    },
  });
  return { ...received, name };
}

/** Removes what earlier runs of the server left behind. */
export function clearUploads(): void {
  fs.rmSync(path.join(dataFolder(), 'uploads'), { recursive: true, force: true });
}
