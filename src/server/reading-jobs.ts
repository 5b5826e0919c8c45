import { randomUUID } from 'node:crypto';
import path from 'node:path';
import type { Worker } from 'node:worker_threads';
import { InputError } from '../core/errors.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from '../store/database.ts';
import { home } from './context.ts';
import { Problem, problemOf } from './problems.ts';
import { absoluteFolder, keepAgain, keepNew, type ReadAgain, rereadable } from './reading.ts';

/** How far a reading is, and what came of it. */
export interface ReadingState {
  id: string;
  state: 'reading' | 'done' | 'failed' | 'stopped';
  read: number;
  known: number;
  projectId: string | null;
  changes: ReadAgain | null;
  problem: { title: string; detail: string; at?: unknown } | null;
}

interface Job {
  state: ReadingState;
  worker: Worker;
}

type Told =
  | { kind: 'progress'; read: number; known: number }
  | { kind: 'done'; snapshot: Snapshot; texts: Record<string, string> }
  | { kind: 'refused'; error: { title: string; detail: string; at?: string } };

/** Finished readings are forgotten after this long. */
const KEPT_MS = 10 * 60_000;

const held = globalThis as typeof globalThis & { yokelineReadings?: Map<string, Job> };

function jobs(): Map<string, Job> {
  held.yokelineReadings ??= new Map();
  return held.yokelineReadings;
}

/** Starts reading a folder into a new project. */
export function startReading(store: Store, folder: string): ReadingState {
  const full = absoluteFolder(folder);
  return start(full, (snapshot, texts) => ({ projectId: keepNew(store, full, snapshot, texts), changes: null }));
}

/** Starts reading a project's folder again. */
export function startReadingAgain(store: Store, projectId: string): ReadingState {
  const folder = rereadable(store, projectId);
  return start(folder, (snapshot, texts) => ({ projectId, changes: keepAgain(store, projectId, snapshot, texts) }));
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
    state.state = 'stopped';
    await jobs().get(id)!.worker.terminate();
  }
  return state;
}

type Keep = (snapshot: Snapshot, texts: Record<string, string>) => Pick<ReadingState, 'projectId' | 'changes'>;

function start(folder: string, keep: Keep): ReadingState {
  // Not imported: the web build would take the worker's file for a module of its own and look for it in the bundle.
  const { Worker: Thread } = process.getBuiltinModule('node:worker_threads');
  const worker = new Thread(path.join(home(), 'dist', 'server', 'read-worker.js'), { workerData: { folder } });
  const state: ReadingState = {
    id: randomUUID(),
    state: 'reading',
    read: 0,
    known: 0,
    projectId: null,
    changes: null,
    problem: null,
  };
  jobs().set(state.id, { state, worker });
  const end = (change: Partial<ReadingState>) => {
    if (state.state !== 'reading') return;
    Object.assign(state, change);
    setTimeout(() => jobs().delete(state.id), KEPT_MS).unref();
  };
  const fail = (error: unknown) => {
    const { title, detail, more } = problemOf(error);
    end({ state: 'failed', problem: { title, detail, at: more.at } });
  };
  worker.on('message', (told: Told) => {
    if (told.kind === 'progress') Object.assign(state, { read: told.read, known: told.known });
    else if (told.kind === 'refused') fail(new InputError(told.error.title, told.error.detail, told.error.at));
    else {
      try {
        end({ ...keep(told.snapshot, told.texts), state: 'done' });
      } catch (error) {
        fail(error);
      }
    }
  });
  worker.on('error', fail);
  return state;
}
