import path from 'node:path';
import type { Store } from '../store/database.ts';
import { OpenFile } from '../store/open-file.ts';

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

const held = globalThis as typeof globalThis & { yokelineStore?: OpenFile };

export function migrations(): string {
  return path.join(home(), 'src', 'store', 'migrations');
}

export function databaseFile(): string {
  return path.join(dataFolder(), 'yokeline.sqlite');
}

/** The one open database of this process; throws StoreTrouble while its file isn't as it must be. */
export function store(): Store {
  held.yokelineStore ??= new OpenFile(databaseFile(), migrations());
  return held.yokelineStore.sound();
}

/** The database as it was opened, though its file may be gone; null: none is open. */
export function lastOpened(): Store | null {
  return held.yokelineStore?.store ?? null;
}

/** Lets go of the database: whoever asks next opens the file that is there, and it is checked. */
export function closeStore(): void {
  held.yokelineStore?.store.close();
  held.yokelineStore = undefined;
}
