import path from 'node:path';
import { openStore, type Store } from '../store/database.ts';

/** The program's folder. */
export function home(): string {
  return process.env.YOKELINE_HOME ?? process.cwd();
}

export function dataFolder(): string {
  return process.env.YOKELINE_DATA ?? path.join(home(), 'data');
}

export function sampleFolder(): string {
  return path.join(home(), 'examples', 'saltmarsh-ferries');
}

const held = globalThis as typeof globalThis & { yokelineStore?: Store };

/** The one open database of this process. */
export function store(): Store {
  held.yokelineStore ??= openStore(
    path.join(dataFolder(), 'yokeline.sqlite'),
    path.join(home(), 'src', 'store', 'migrations'),
  );
  return held.yokelineStore;
}
