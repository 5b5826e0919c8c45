import path from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { InputError } from '../core/errors.ts';
import { readApp } from '../reader/read-app.ts';
import { unpack } from '../reader/unpack/unpack.ts';
import type { HowToRead } from './reading.ts';

/** An archive in a folder of its own. */
export interface Archive {
  folder: string;
  /** The archive's file in that folder, and the name that its owner gave it. */
  file: string;
  name: string;
}

export type ReadWork = HowToRead & ({ folder: string } | { archive: Archive });

/** Reads a folder or an archive on a thread of its own; tells how far it is, then what it found or what was wrong. */
const EVERY_MS = 100;
const work = workerData as ReadWork;
let told = 0;
try {
  const { folder, links } = 'archive' in work ? await unpacked(work.archive) : { folder: work.folder, links: [] };
  const { snapshot, texts, sources } = readApp(folder, {
    as: work.as,
    ...(work.base === null ? {} : { base: work.base }),
    progress: (read, known) => {
      const now = performance.now();
      if (now - told < EVERY_MS) return;
      told = now;
      parentPort?.postMessage({ kind: 'progress', read, known });
    },
  });
  for (const link of links)
    snapshot.failed.push({ path: link, line: 1, message: 'a link in the archive; links are not followed' });
  parentPort?.postMessage({ kind: 'done', read: { snapshot, texts, sources } });
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  parentPort?.postMessage({ kind: 'refused', error: error.toJSON() });
}

/** The app is called after its archive where it doesn't say its own name. */
async function unpacked({ folder, file, name }: Archive): Promise<{ folder: string; links: string[] }> {
  const called = name.replace(/\.(zip|tgz|tar\.gz)$/i, '').replace(/[^\w.-]+/g, '-') || 'app';
  return unpack(path.join(folder, file), name, path.join(folder, 'unpacked', called));
}
