import type { Left } from './work.ts';

/** About so many characters of texts are written as one piece. */
const PIECE = 4_000_000;
const LENGTH_BYTES = 8;

type Texts = Record<string, string>;

/**
 * Writes what a reading leaves, piece by piece: as one, it would take up as much memory again as the reading itself. A piece is its length (8 bytes, big-endian),
 * and what it holds in the form of the engine: first all but texts and sources, then parts of these.
 */
export function writeLeft(file: string, left: Left): void {
  const fs = process.getBuiltinModule('node:fs');
  const { serialize } = process.getBuiltinModule('node:v8');
  const handle = fs.openSync(file, 'w');
  const write = (value: unknown) => {
    const bytes = serialize(value);
    const length = Buffer.alloc(LENGTH_BYTES);
    length.writeBigUInt64BE(BigInt(bytes.length));
    fs.writeSync(handle, length);
    for (let at = 0; at < bytes.length; ) at += fs.writeSync(handle, bytes, at);
  };
  try {
    if (left.kind !== 'read') {
      write(left);
      return;
    }
    const { texts, sources, ...read } = left.read;
    const kept = [...piecesOf('texts', texts), ...piecesOf('sources', sources)];
    write({ ...left, read, pieces: kept.length });
    for (const { of, paths } of kept) write({ of, paths, texts: paths.map((path) => left.read[of][path]) });
  } finally {
    fs.closeSync(handle);
  }
}

type Of = 'texts' | 'sources';

/** Which texts are written together. */
function piecesOf(of: Of, texts: Texts): { of: Of; paths: string[] }[] {
  const pieces: { of: Of; paths: string[] }[] = [];
  let room = 0;
  for (const path of Object.keys(texts)) {
    if (room <= 0) {
      pieces.push({ of, paths: [] });
      room = PIECE;
    }
    pieces.at(-1)!.paths.push(path);
    room -= texts[path].length;
  }
  return pieces;
}

/** What a reading left; null where it left nothing, or didn’t come to the end of it. */
export function readLeft(file: string): Left | null {
  const fs = process.getBuiltinModule('node:fs');
  const { deserialize } = process.getBuiltinModule('node:v8');
  let handle: number;
  try {
    handle = fs.openSync(file, 'r');
  } catch {
    return null;
  }
  const bytesOf = (length: number) => {
    const bytes = Buffer.allocUnsafe(length);
    for (let at = 0; at < length; ) {
      const read = fs.readSync(handle, bytes, at, length - at, null);
      if (read === 0) throw new Error('cut off');
      at += read;
    }
    return bytes;
  };
  const next = () => deserialize(bytesOf(Number(bytesOf(LENGTH_BYTES).readBigUInt64BE())));
  try {
    const left = next() as Left & { pieces?: number };
    if (left.kind !== 'read') return left;
    const { pieces = 0, ...whole } = left;
    const read = { ...whole.read, texts: {} as Texts, sources: {} as Texts };
    for (let n = 0; n < pieces; n++) {
      const { of, paths, texts } = next() as { of: Of; paths: string[]; texts: string[] };
      for (const [i, path] of paths.entries()) read[of][path] = texts[i];
    }
    return { kind: 'read', read };
  } catch {
    return null;
  } finally {
    fs.closeSync(handle);
  }
}
