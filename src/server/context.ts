import path from 'node:path';
import { openStore, type Store } from '../store/database.ts';

/** The program's folder, and the one for data. */
const HOME = process.env.YOKELINE_HOME ?? process.cwd();

export function dataFolder(): string {
  return process.env.YOKELINE_DATA ?? path.join(HOME, 'data');
}

export function sampleFolder(): string {
  return path.join(HOME, 'examples', 'saltmarsh-ferries');
}

const held = globalThis as typeof globalThis & { yokelineStore?: Store };

/** The one open database of this process. */
export function store(): Store {
  held.yokelineStore ??= openStore(
    path.join(dataFolder(), 'yokeline.sqlite'),
    path.join(HOME, 'src', 'store', 'migrations'),
  );
  return held.yokelineStore;
}
