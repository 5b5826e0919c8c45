import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Worker } from 'node:worker_threads';
import { InputError } from '../core/errors.ts';
import type { FileMap } from '../core/handoff/addresses.ts';
import type { Reconciliation } from '../core/reconcile/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from '../store/database.ts';
import { home } from './context.ts';
import { Problem, problemOf } from './problems.ts';
import { addProject } from './projects.ts';
import type { Archive, ReadWork } from './read-worker.ts';
import { absoluteFolder, type HowToRead, keepAgain, type Read, type ReadAgain, rereadable } from './reading.ts';

/** How far a reading is, and what came of it. */
export interface ReadingState {
  id: string;
  state: 'reading' | 'done' | 'failed' | 'stopped';
  read: number;
  known: number;
  projectId: string | null;
  changes: ReadAgain | null;
  problem: { title: string; detail: string; at?: unknown } | null;
  /** For a production build that was read to be compared. */
  build?: ComparedBuild;
}

/** What a production build delivered of a plan, and the built file of each module. */
export interface ComparedBuild {
  reconciled: Reconciliation;
  files: FileMap;
}

interface Job {
  state: ReadingState;
  worker: Worker;
  end: (change: Partial<ReadingState>) => void;
}

type Told =
  | { kind: 'progress'; read: number; known: number }
  | { kind: 'done'; read: Read }
  | { kind: 'refused'; error: { title: string; detail: string; at?: string } };

/** Each has a thread of its own. */
const MOST_AT_ONCE = 4;

/** Finished readings are forgotten after this long. */
const KEPT_MS = 10 * 60_000;

const held = globalThis as typeof globalThis & { yokelineReadings?: Map<string, Job> };

function jobs(): Map<string, Job> {
  held.yokelineReadings ??= new Map();
  return held.yokelineReadings;
}

/** Starts reading a folder into a new project. */
export function startReading(store: Store, folder: string, how: HowToRead): ReadingState {
  const full = absoluteFolder(folder);
  return start({ folder: full, ...how }, ({ snapshot, ...texts }) => {
    const origin = { ...texts, folder: full, readAs: how.as, givenBase: how.base };
    return { projectId: addProject(store, snapshot, [], origin), changes: null };
  });
}

/** Starts reading a project's folder again. */
export function startReadingAgain(store: Store, projectId: string): ReadingState {
  const { folder, how } = rereadable(store, projectId);
  return start({ folder, ...how }, (read) => ({
    projectId,
    changes: keepAgain(store, projectId, read),
  }));
}

/** Starts reading a folder of which nothing is kept but what it is compared for. */
export function startComparing(
  folder: string,
  how: HowToRead,
  compare: (built: Snapshot) => ComparedBuild,
): ReadingState {
  return start({ folder, ...how }, ({ snapshot }) => ({ projectId: null, changes: null, build: compare(snapshot) }));
}

/** Starts reading an archive that lies in a folder of its own; that folder is gone when the reading is over. */
export function startReadingArchive(store: Store, archive: Archive, how: HowToRead): ReadingState {
  const keep: Keep = ({ snapshot, ...texts }) => ({ projectId: addProject(store, snapshot, [], texts), changes: null });
  return start({ archive, ...how }, keep, () => fs.rmSync(archive.folder, { recursive: true, force: true }));
}

export function readingState(id: string): ReadingState {
  const job = jobs().get(id);
  if (!job)
    throw new Problem(
      404,
      'No such reading',
      'It is over, or the server was started again. Read the folder once more.',
    );
  return job.state;
}

/** Stops a reading; nothing of it is kept. */
export async function stopReading(id: string): Promise<ReadingState> {
  const state = readingState(id);
  if (state.state === 'reading') {
    const { worker, end } = jobs().get(id)!;
    await worker.terminate();
    end({ state: 'stopped' });
  }
  return state;
}

type Keep = (read: Read) => Pick<ReadingState, 'projectId' | 'changes' | 'build'>;

function start(work: ReadWork, keep: Keep, after: () => void = () => {}): ReadingState {
  const running = [...jobs().values()].filter((j) => j.state.state === 'reading').length;
  if (running >= MOST_AT_ONCE)
    throw new Problem(429, 'Too many readings at once', 'Wait until one is done, or stop one.');
  // Not imported: the web build would take the worker's file for a module of its own and look for it in the bundle.
  const { Worker: Thread } = process.getBuiltinModule('node:worker_threads');
  const worker = new Thread(path.join(home(), 'dist', 'server', 'read-worker.js'), { workerData: work });
  const state: ReadingState = {
    id: randomUUID(),
    state: 'reading',
    read: 0,
    known: 0,
    projectId: null,
    changes: null,
    problem: null,
  };
  const end = (change: Partial<ReadingState>) => {
    if (state.state !== 'reading') return;
    Object.assign(state, change);
    after();
    setTimeout(() => jobs().delete(state.id), KEPT_MS).unref();
  };
  jobs().set(state.id, { state, worker, end });
  const fail = (error: unknown) => {
    const { title, detail, more } = problemOf(error);
    end({ state: 'failed', problem: { title, detail, at: more.at } });
  };
  worker.on('message', (told: Told) => {
    if (told.kind === 'progress') Object.assign(state, { read: told.read, known: told.known });
    else if (told.kind === 'refused') fail(new InputError(told.error.title, told.error.detail, told.error.at));
    else {
      try {
        end({ ...keep(told.read), state: 'done' });
      } catch (error) {
        fail(error);
      }
    }
  });
  worker.on('error', fail);
  return state;
}
