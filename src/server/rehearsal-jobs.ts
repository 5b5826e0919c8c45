import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { rebuiltRoutes } from '../core/amend/amend.ts';
import { DECISION_LIST, type Decision } from '../core/plan/types.ts';
import type { Rehearsal } from '../core/rehearsals/types.ts';
import { deviceOf, linkOf } from '../core/sim/own-conditions.ts';
import type { CacheState } from '../core/vocabulary/cache-states.ts';
import { type RunningRehearsal, runRehearsal } from '../rehearse/process/run-rehearsal.ts';
import type { RehearsalWork } from '../rehearse/rehearse.ts';
import { dataFrom } from '../rehearse/stage/data-from.ts';
import type { Store } from '../store/database.ts';
import { amendmentsOf, findProject } from '../store/projects.ts';
import {
  allowToRun,
  insertRehearsal,
  type KeptRehearsal,
  listRehearsals,
  mayRun,
  type NewRehearsal,
  rehearsalOf,
  removeRehearsal,
} from '../store/rehearsals.ts';
import { newestSnapshotId } from '../store/snapshots.ts';
import { home } from './context.ts';
import type { RehearsalInput } from './inputs.ts';
import { Problem } from './problem.ts';
import { problemOf } from './problems.ts';
import { noProject } from './projects.ts';
import { absoluteFolder, rereadable } from './reading.ts';
import { howProcessesRead } from './reading-process.ts';

/** How far a rehearsal is, and what came of it. */
export interface RehearsalState {
  id: string;
  projectId: string;
  /** The plan that is run, by its name. */
  plan: string;
  state: 'running' | 'done' | 'failed';
  doing: string;
  done: number;
  of: number;
  /** Somebody asked it to stop: it ends with the runs that it has. */
  stopping: boolean;
  problem: { title: string; detail: string; at?: unknown } | null;
}

/** What is kept of a project’s rehearsals, and whether its code may be run. */
export interface RehearsalsView {
  mayRun: boolean;
  kept: KeptRehearsal[];
  /** What is being rehearsed now, be it of another project: only one thing is at a time. */
  running: RehearsalState | null;
}

interface Job {
  state: RehearsalState;
  running: RunningRehearsal;
}

const held = globalThis as typeof globalThis & { yokelineRehearsals?: Map<string, Job> };

function jobs(): Map<string, Job> {
  held.yokelineRehearsals ??= new Map();
  return held.yokelineRehearsals;
}

/** How long the end of one can be asked for, in ms. */
const KEPT_MS = 10 * 60_000;

function runningNow(): RehearsalState | null {
  return [...jobs().values()].find((j) => j.state.state === 'running')?.state ?? null;
}

/** Starts a rehearsal of a plan of a project; one at a time, since each needs the machine for itself. */
export function startRehearsal(store: () => Store, projectId: string, input: RehearsalInput): RehearsalState {
  const db = store();
  if (!findProject(db, projectId)) throw noProject();
  if (input.allow === true) allowToRun(db, projectId, true);
  if (!mayRun(db, projectId))
    throw new Problem(
      'not-allowed-to-run',
      'The app’s code may not be run yet',
      'A rehearsal runs the app’s own code in a browser on this machine. Allow it for this project first.',
    );
  if (runningNow())
    throw new Problem(
      'rehearsal-runs',
      'Another rehearsal is running',
      'Each needs the machine for itself. Wait for it, or stop it.',
    );
  const decisions = DECISION_LIST.check(input.decisions, 'decisions');
  const state: RehearsalState = {
    ...{ id: randomUUID(), projectId, plan: input.name, state: 'running', doing: 'starting', done: 0, of: input.runs },
    ...{ stopping: false, problem: null },
  };
  const script = path.join(home(), 'dist', 'rehearse', 'process', 'rehearsal-process.js');
  const running = runRehearsal(workOf(db, projectId, input, decisions), script, (at) => Object.assign(state, at));
  const snapshotId = newestSnapshotId(db, projectId)!;
  running.done.then(
    (rehearsal) => end(state, () => keep(store(), { projectId, snapshotId, decisions, rehearsal })),
    (error) => end(state, () => Promise.reject(error)),
  );
  jobs().set(state.id, { state, running });
  return state;
}

function workOf(store: Store, projectId: string, input: RehearsalInput, decisions: Decision[]): RehearsalWork {
  const { folder, how } = rereadable(store, projectId);
  const { amendments } = amendmentsOf(store, projectId)!;
  return {
    ...{ folder, amendments, pattern: input.route, runs: input.runs, memory: howProcessesRead().memory },
    reading: {
      as: how.as,
      ...(how.base === null ? {} : { base: how.base }),
      ...(how.workspace === null ? {} : { workspace: how.workspace }),
      ...{ starts: how.starts, corrected: rebuiltRoutes(amendments) },
    },
    plan: { name: input.name, description: '', decisions },
    conditions: { link: linkOf(input.link), device: deviceOf(input.device), cache: input.cache as CacheState },
    ...(input.address ? { address: input.address } : {}),
    acts: input.acts ?? [],
    ...(input.data ? { data: dataFrom(input.data, absoluteFolder) } : {}),
  };
}

function keep(store: Store, made: Omit<NewRehearsal, 'id'>): void {
  insertRehearsal(store, { id: randomUUID(), ...made });
}

async function end(state: RehearsalState, work: () => void | Promise<void>): Promise<void> {
  try {
    await work();
    Object.assign(state, { state: 'done', doing: 'done' });
  } catch (error) {
    const { title, detail, more } = problemOf(error);
    Object.assign(state, { state: 'failed', problem: { title, detail, at: more.at } });
  }
  setTimeout(() => jobs().delete(state.id), KEPT_MS).unref();
}

function jobOf(id: string): Job {
  const job = jobs().get(id);
  if (job) return job;
  throw new Problem('no-such-rehearsal', 'No such rehearsal', 'It is over, or the server was started again.');
}

export function rehearsalState(id: string): RehearsalState {
  return jobOf(id).state;
}

/** Asks a rehearsal to end with what it has. */
export function stopRehearsal(id: string): RehearsalState {
  const { state, running } = jobOf(id);
  if (state.state === 'running' && !state.stopping) {
    state.stopping = true;
    running.stop();
  }
  return state;
}

/** Rehearsals that are kept of a project. */
export function rehearsalsOf(store: Store, projectId: string): RehearsalsView {
  if (!findProject(store, projectId)) throw noProject();
  return { mayRun: mayRun(store, projectId), kept: listRehearsals(store, projectId), running: runningNow() };
}

/** All that was measured in one of them. */
export function keptRehearsal(store: Store, projectId: string, id: string): Rehearsal {
  const found = rehearsalOf(store, projectId, id);
  if (!found) throw gone();
  return found;
}

/** Lets go of one that is kept. */
export function forgetRehearsal(store: Store, projectId: string, id: string): void {
  if (!removeRehearsal(store, projectId, id)) throw gone();
}

function gone(): Problem {
  return new Problem('no-such-rehearsal', 'No such rehearsal', 'It isn’t kept any more.');
}
