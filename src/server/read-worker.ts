import { parentPort, workerData } from 'node:worker_threads';
import { InputError } from '../core/errors.ts';
import { readSource } from '../reader/read-source.ts';

/** Reads a folder on a thread of its own; tells how far it is, then what it found or what was wrong. */
const EVERY_MS = 100;
const { folder } = workerData as { folder: string };
let told = 0;
try {
  const { snapshot, texts } = readSource(folder, (read, known) => {
    const now = performance.now();
    if (now - told < EVERY_MS) return;
    told = now;
    parentPort?.postMessage({ kind: 'progress', read, known });
  });
  parentPort?.postMessage({ kind: 'done', snapshot, texts });
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  parentPort?.postMessage({ kind: 'refused', error: error.toJSON() });
}
