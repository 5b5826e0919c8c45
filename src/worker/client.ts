import { wrap } from 'comlink';
import { whenEnded } from './alive.ts';
import type { Analyst } from './analyst.ts';

const MOST_HELPERS = 14;
/** Modules that all helpers together hold at most: about 1 GB. */
const MOST_HELD = 60_000;

/** An analyst on another thread: each answer takes its time. */
type Questions<T> = {
  [K in keyof T]: T[K] extends (...args: infer A) => infer R ? (...args: A) => Promise<Awaited<R>> : Questions<T[K]>;
};
export type RemoteAnalyst = Questions<Analyst>;

interface Started {
  remote: RemoteAnalyst;
  worker: Worker;
}

const started = new Map<string, Started>();
let whenBroken: () => void = () => {};

/** What is to be done when a computation broke down: its thread is gone, and the next question starts a new one. */
export function onBreakdown(then: () => void): void {
  whenBroken = then;
}

/** An analyst on its own thread; started at first use, and again after it broke down. */
function analystNamed(name: string): RemoteAnalyst {
  const cached = started.get(name);
  if (cached) return cached.remote;
  const lock = `${name} ${crypto.getRandomValues(new Uint32Array(4)).join('-')}`;
  const worker = new Worker(new URL('./analyst.worker.ts', import.meta.url), { type: 'module', name: lock });
  const broken = new Promise<never>((_, reject) => {
    const gone = () => {
      if (started.get(name)?.worker !== worker) return;
      worker.terminate();
      started.delete(name);
      reject(new Error('The computation broke down and is begun again.'));
      whenBroken();
    };
    worker.addEventListener('error', (event) => {
      event.preventDefault();
      gone();
    });
    whenEnded(worker, lock, gone);
  });
  broken.catch(() => {});
  const made = { worker, remote: answeredOrBroken(wrap<Analyst>(worker) as unknown as RemoteAnalyst, broken) };
  started.set(name, made);
  return made.remote;
}

/** The same analyst, whose answers fail when its thread does: else whoever waits for one waits for ever. */
function answeredOrBroken(remote: RemoteAnalyst, broken: Promise<never>): RemoteAnalyst {
  return asking(remote, (answer) => Promise.race([answer(), broken]));
}

type Call = (answer: () => Promise<unknown>) => Promise<unknown>;

/** What is asked of an analyst, and of its services, goes through `call`. */
function asking<T extends object>(remote: T, call: Call): T {
  return new Proxy(remote, {
    get(of, name) {
      // It is no promise itself, though a remote answers to every name.
      if (name === 'then') return undefined;
      return asking(Reflect.get(of, name) as object, call);
    },
    apply(method, _, args: unknown[]) {
      return call(() => (method as (...args: unknown[]) => Promise<unknown>)(...args));
    },
  });
}

/** Answers what the person looks at. While another app is being opened, questions wait until it is. */
export function analyst(): RemoteAnalyst {
  const remote = analystNamed('analyst');
  const until = opening;
  return until === null ? remote : after(until, remote);
}

let opening: Promise<unknown> | null = null;

/**
 * Lets a piece of work change what the analyst holds, and what is known of it, with no other question in between: else an
 * answer about one app could come from another.
 */
export async function alone<T>(work: (analyst: RemoteAnalyst) => Promise<T>): Promise<T> {
  const before = opening ?? Promise.resolve();
  const mine = before.then(
    () => work(analystNamed('analyst')),
    () => work(analystNamed('analyst')),
  );
  opening = mine;
  try {
    return await mine;
  } finally {
    if (opening === mine) opening = null;
  }
}

function after(until: Promise<unknown>, remote: RemoteAnalyst): RemoteAnalyst {
  return asking(remote, (answer) => until.catch(() => {}).then(answer));
}

/** Does what takes long, so that the other one stays free: advice, expectations over many visits. */
export function longAnalyst(): RemoteAnalyst {
  return analystNamed('long analyst');
}

/** Others who do parts of what takes long, for an app of so many modules. */
export function helpers(modules: number): RemoteAnalyst[] {
  const count = helperCount(navigator.hardwareConcurrency || 2, modules);
  return Array.from({ length: count }, (_, n) => analystNamed(`helper ${n + 1}`));
}

/** With the long analyst, as many as a machine has cores but one, as far as memory allows: each holds the app once more. */
export function helperCount(cores: number, modules: number): number {
  return Math.max(0, Math.min(cores - 2, MOST_HELPERS, Math.floor(MOST_HELD / Math.max(1, modules))));
}
