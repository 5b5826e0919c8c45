import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import type { ReadingOffers } from '../core/errors.ts';
import type { FileMap } from '../core/handoff/addresses.ts';
import type { Reconciliation } from '../core/reconcile/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { type Reading, runReading } from '../reader/process/run-reading.ts';
import type { Archive, Read, ReadWork } from '../reader/process/work.ts';
import type { Store } from '../store/database.ts';
import { updateWorkspace } from '../store/projects.ts';
import { Problem } from './problem.ts';
import { problemOf } from './problems.ts';
import { addProject } from './projects.ts';
import { absoluteFolder, type HowToRead, keepAgain, type ReadAgain, rereadable } from './reading.ts';
import { howProcessesRead } from './reading-process.ts';

/** How far a reading is, and what came of it. */
export interface ReadingState {
  id: string;
  state: 'reading' | 'done' | 'failed' | 'stopped';
  /** Its place among those that wait, from 1 on; 0 once it has begun. */
  ahead: number;
  read: number;
  known: number;
  projectId: string | null;
  changes: ReadAgain | null;
  problem: { title: string; detail: string; at?: unknown; offers?: ReadingOffers } | null;
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
  begin: () => void;
  /** Missing while it waits for its turn. */
  reading?: Reading;
  end: (change: Partial<ReadingState>) => void;
  /** When somebody last asked how far it is, in ms. */
  askedAt: number;
}

/** Each has a process of its own. */
const MOST_AT_ONCE = 4;
/** More than anybody waits for. */
const MOST_WAITING = 100;
/** A reading that nobody has asked about for so long is stopped: the page that wanted it is gone. */
const FORGOTTEN_MS = 60_000;

/** Finished readings are forgotten after this long. */
const KEPT_MS = 10 * 60_000;

const held = globalThis as typeof globalThis & {
  yokelineReadings?: Map<string, Job>;
  yokelineTurns?: NodeJS.Timeout;
};

function jobs(): Map<string, Job> {
  held.yokelineReadings ??= new Map();
  return held.yokelineReadings;
}

/** The database, asked for when it is needed: it may be another one by the time that a reading is over. */
type OpenStore = () => Store;

/** Starts reading a folder into a new project. */
export function startReading(store: OpenStore, folder: string, how: HowToRead): ReadingState {
  const full = absoluteFolder(folder);
  return start({ folder: full, ...how }, ({ snapshot, ...texts }) => {
    const origin = {
      ...texts,
      folder: full,
      readAs: how.as,
      givenBase: how.base,
      workspace: how.workspace,
      starts: how.starts,
    };
    return { projectId: addProject(store(), snapshot, [], origin), changes: null };
  });
}

/** Starts reading a project's folder again; with a workspace that a person allowed now, which is kept with it. */
export function startReadingAgain(store: OpenStore, projectId: string, allowed: string | null): ReadingState {
  const { folder, how } = rereadable(store(), projectId);
  const workspace = allowed ?? how.workspace;
  return start({ folder, ...how, workspace }, (read) => {
    if (allowed !== null) updateWorkspace(store(), projectId, allowed);
    return { projectId, changes: keepAgain(store(), projectId, read) };
  });
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
export function startReadingArchive(store: OpenStore, archive: Archive, how: HowToRead): ReadingState {
  const keep: Keep = ({ snapshot, ...texts }) => ({
    projectId: addProject(store(), snapshot, [], texts),
    changes: null,
  });
  return start({ archive, ...how }, keep, () => fs.rmSync(archive.folder, { recursive: true, force: true }));
}

export function readingState(id: string): ReadingState {
  const job = jobs().get(id);
  if (!job)
    throw new Problem(
      'no-such-reading',
      'No such reading',
      'It is over, or the server was started again. Read the folder once more.',
    );
  job.askedAt = Date.now();
  return job.state;
}

/** Stops a reading; nothing of it is kept. */
export function stopReading(id: string): ReadingState {
  const state = readingState(id);
  stop(jobs().get(id)!);
  return state;
}

function stop({ reading, end }: Job): void {
  reading?.stop();
  end({ state: 'stopped' });
}

/** Readings that go on, and those that wait for their turn, in the order in which they were asked for. */
function goingOn(): { running: Job[]; waiting: Job[] } {
  const open = [...jobs().values()].filter((j) => j.state.state === 'reading');
  return { running: open.filter((j) => j.reading), waiting: open.filter((j) => !j.reading) };
}

/** Whoever asked first is read next; what nobody asks about any more is stopped. */
function turn(now = Date.now()): void {
  for (const job of [...goingOn().running, ...goingOn().waiting]) if (now - job.askedAt > FORGOTTEN_MS) stop(job);
  const { running, waiting } = goingOn();
  for (const job of waiting.splice(0, Math.max(0, MOST_AT_ONCE - running.length))) job.begin();
  for (const [at, job] of waiting.entries()) job.state.ahead = at + 1;
}

type Keep = (read: Read) => Pick<ReadingState, 'projectId' | 'changes' | 'build'>;

function start(work: ReadWork, keep: Keep, after: () => void = () => {}): ReadingState {
  if (goingOn().waiting.length >= MOST_WAITING)
    throw new Problem('too-many-readings', 'Too many readings wait', 'Wait until some are done, or stop some.');
  const state: ReadingState = {
    id: randomUUID(),
    state: 'reading',
    ahead: 0,
    read: 0,
    known: 0,
    projectId: null,
    changes: null,
    problem: null,
  };
  const end = (change: Partial<ReadingState>) => {
    if (state.state !== 'reading') return;
    Object.assign(state, change, { ahead: 0 });
    after();
    setTimeout(() => jobs().delete(state.id), KEPT_MS).unref();
    turn();
  };
  const fail = (error: unknown) => {
    const { title, detail, more } = problemOf(error);
    end({ state: 'failed', problem: { title, detail, at: more.at, offers: more.offers as ReadingOffers | undefined } });
  };
  const { script, memory } = howProcessesRead();
  const job: Job = {
    state,
    end,
    askedAt: Date.now(),
    begin: () => {
      state.ahead = 0;
      job.reading = runReading(work, script, {
        onProgress: (read, known) => Object.assign(state, { read, known }),
        memory,
      });
      job.reading.done.then((read) => {
        try {
          end({ ...keep(read), state: 'done' });
        } catch (error) {
          fail(error);
        }
      }, fail);
    },
  };
  jobs().set(state.id, job);
  held.yokelineTurns ??= setInterval(turn, FORGOTTEN_MS / 6).unref();
  turn();
  return state;
}
