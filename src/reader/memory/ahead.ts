import os from 'node:os';
import { MessageChannel, type MessagePort, receiveMessageOnPort, Worker } from 'node:worker_threads';
import { filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { kindOf } from '../graph/kinds.ts';
import { scriptSaid } from '../graph/script-said.ts';
import type { Compiling } from '../script/compiling.ts';
import { AFTER, FAR, RUN, windowBefore } from '../weigh-together.ts';
import {
  type AddedWork,
  type AheadWork,
  aroundScript,
  BEGUN,
  type LaterWork,
  type LeftWork,
  OPEN,
  type SheetsWork,
  type SizesWork,
  TAKEN,
} from './ahead-work.ts';
import type { FilesMemory } from './files-memory.ts';
import type { Foresees } from './left-asked.ts';
import { digestOf, type Memory, type Remembered, rememberWith } from './memory.ts';

/** Fewer scripts are read before threads have begun. */
const WORTH_IT = 400;
const MOST_THREADS = 7;

/** How much of a thread's share the reading takes itself: of what is left of scripts threads find out the sizes as well, and the reading does other things between. */
const OWN_SHARE = { left: 1.6, sizes: 1, added: 1 } as const;

/** A thread that doesn't come to the end of one script in so long has broken off, or the script would hold up the reading just as well. */
const LONGEST_WAIT_MS = 5000;

/**
 * Threads that find out what the scripts of a folder say, while the reading follows imports. Whoever comes to a script first takes it: the reading
 * waits for one that a thread is at, and finds out itself what no thread has begun. What it gives doesn't hang on who was faster.
 */
export class Ahead implements Memory {
  private readonly ports: MessagePort[] = [];
  private readonly workers: Worker[] = [];
  /** What threads told and nobody has asked for yet. */
  private readonly told = new Map<string, unknown>();
  private readonly said: Claims;
  private left: Claims | null = null;
  private sizes: Claims | null = null;
  private adds: Claims | null = null;

  private constructor(
    private readonly beneath: Memory,
    work: Pick<AheadWork, 'root' | 'compiling'>,
    files: string[],
    threads: number,
  ) {
    this.said = new Claims(files);
    for (let n = 0; n < threads; n++) {
      const { port1, port2 } = new MessageChannel();
      const from = Math.floor((files.length * n) / threads);
      const worker = new Worker(new URL('./ahead-worker.js', import.meta.url), {
        workerData: { ...work, files, states: this.said.states, from, to: port2 },
        transferList: [port2],
      });
      // One that breaks off leaves its share to the reading.
      worker.on('error', () => {});
      worker.unref();
      this.ports.push(port1);
      this.workers.push(worker);
    }
  }

  /** Begins, where there is enough to do and a core to do it on; else gives the memory as it is. */
  static over(
    beneath: Memory,
    { root, compiling }: Pick<AheadWork, 'root' | 'compiling'>,
    cores = os.availableParallelism(),
  ): { memory: Memory; stop: () => void } {
    const threads = Math.min(cores - 1, MOST_THREADS);
    const none = { memory: beneath, stop: () => {} };
    if (threads < 1) return none;
    const files = filesBelow(root).filter((f) => kindOf(f) === 'script' && !f.endsWith('.d.ts'));
    if (files.length < WORTH_IT || areKnown(beneath, files, root, compiling)) return none;
    const ahead = new Ahead(beneath, { root, compiling }, files, threads);
    return { memory: ahead, stop: () => ahead.stop() };
  }

  recall(key: string, of: string): unknown {
    const known = this.known(key, of);
    if (known !== undefined) return known;
    const kind = key.slice(0, key.indexOf(' ')) as Remembered;
    if (!HANDED_OUT[kind] || this.claimsOf(kind)?.take(of)) return undefined;
    this.takeOver();
    return this.known(key, of);
  }

  /** What was asked for once is hardly ever asked for again; and for who reads again it is kept beneath. */
  private known(key: string, of: string): unknown {
    const told = this.told.get(key);
    if (told === undefined) return this.beneath.recall(key, of);
    this.told.delete(key);
    return told;
  }

  /** Who is at what of a kind; null where it is found out along with something else. */
  private claimsOf(kind: Remembered): Claims | null {
    if (kind === 'added') return this.adds;
    if (kind === 'weight') return this.sizes;
    return kind === 'script' ? this.said : kind === 'live' || kind === 'small' ? this.left : null;
  }

  /** Has the threads go on with what is left of scripts, with what the reading itself hasn't weighed, and with what texts add to one another. */
  readonly foresee: Foresees = {
    sheets: (texts) => this.ports[0].postMessage({ kind: 'sheets', texts } satisfies SheetsWork),
    left: (asked, mentions) => {
      this.said.takeRest();
      this.left = new Claims(asked.map((a) => a.path));
      const { states } = this.left;
      this.handOut(asked.length, OWN_SHARE.left, (from, to): LeftWork => {
        return { kind: 'left', asked: asked.slice(from, to), states, from, mentions };
      });
    },
    sizes: (all) => {
      this.left?.takeRest();
      const asked = all.filter(({ path }) => !this.left?.wasHandedOver(path));
      this.sizes = new Claims(asked.map(({ text }) => text));
      const { states } = this.sizes;
      this.handOut(asked.length, OWN_SHARE.sizes, (from, to): SizesWork => {
        return { kind: 'sizes', asked: asked.slice(from, to), states, from };
      });
    },
    added: ({ texts, runs, sample }) => {
      if (texts.length < WORTH_IT) return;
      this.sizes?.takeRest();
      const names = texts.map((text) => this.digest(text));
      const ofRuns = runs.map(([from, to]) => RUN(names.slice(from, to)));
      this.adds = new Claims([...names.map(AFTER), ...names.map(FAR), ...ofRuns]);
      const { states } = this.adds;
      this.handOut(texts.length, OWN_SHARE.added, (from, to): AddedWork => {
        const first = windowBefore(texts, from);
        const own = runs.filter((run) => run[0] >= from && run[1] <= to);
        const firstRun = own.length > 0 ? runs.indexOf(own[0]) : 0;
        const share = { texts: texts.slice(first, to), before: from - first, sample };
        return { kind: 'added', ...share, runs: own, states, from, of: texts.length, firstRun };
      });
    },
  };

  /** Gives each thread a share of so many things; the first is for who asks, as large as `own` shares of threads. */
  private handOut(count: number, own: number, work: (from: number, to: number) => LaterWork): void {
    const start = (n: number) => Math.floor((count * (own + n)) / (own + this.ports.length));
    this.ports.forEach((port, n) => {
      port.postMessage(work(start(n), start(n + 1)));
    });
  }

  keep(key: string, value: unknown): void {
    this.beneath.keep(key, value);
  }

  digest(text: string): string {
    return this.beneath.digest(text);
  }

  get files(): FilesMemory | null {
    return this.beneath.files;
  }

  private takeOver(): void {
    for (const port of this.ports)
      for (let told = receiveMessageOnPort(port); told; told = receiveMessageOnPort(port)) {
        for (const [key, value] of told.message as [string, unknown][]) {
          this.told.set(key, value);
          this.beneath.keep(key, value);
        }
      }
  }

  private stop(): void {
    for (const worker of this.workers) void worker.terminate();
    for (const port of this.ports) port.close();
  }
}

/** What threads find out ahead. */
const HANDED_OUT: Record<Remembered, boolean> = {
  ...{ script: true, live: true, small: true, weight: true, words: true, added: true },
  ...{ rules: true, names: true, sheet: false },
};

/** Who is at which of some scripts, among all threads. */
class Claims {
  readonly states: Int32Array;
  private readonly at: ReadonlyMap<string, number>;

  constructor(paths: readonly string[]) {
    const at = new Map<string, number>();
    // Of several of one name the first is found.
    for (const [i, path] of paths.entries()) if (!at.has(path)) at.set(path, i);
    this.at = at;
    this.states = new Int32Array(new SharedArrayBuffer(paths.length * Int32Array.BYTES_PER_ELEMENT));
  }

  /** Takes a script, if nobody has begun it; else waits until it is done, and says that it was another one's. */
  take(path: string): boolean {
    const i = this.at.get(path);
    if (i === undefined || Atomics.compareExchange(this.states, i, OPEN, TAKEN) === OPEN) return true;
    Atomics.wait(this.states, i, BEGUN, LONGEST_WAIT_MS);
    return false;
  }

  /** Whether a thread did it, or is at it. */
  wasHandedOver(path: string): boolean {
    const i = this.at.get(path);
    return i !== undefined && Atomics.load(this.states, i) >= BEGUN;
  }

  /** Takes all that nobody has begun. */
  takeRest(): void {
    for (let i = 0; i < this.states.length; i++) Atomics.compareExchange(this.states, i, OPEN, TAKEN);
  }
}

/** So many of the scripts are tried. */
const TRIED = 8;

/** Whether an earlier reading found out what most of the scripts say. */
function areKnown(memory: Memory, files: readonly string[], root: string, compiling: Compiling): boolean {
  const step = Math.floor(files.length / TRIED);
  let known = 0;
  const asked = new Error('only asked');
  rememberWith({
    recall: (key, of) => {
      if (memory.recall(key, of) !== undefined) known++;
      throw asked;
    },
    keep: () => {},
    digest: digestOf,
    files: null,
    foresee: null,
  });
  try {
    for (let n = 0; n < TRIED; n++) {
      const file = files[n * step];
      try {
        scriptSaid(file, textIfThere(root, file) ?? '', aroundScript(root, file, compiling));
      } catch (error) {
        if (error !== asked) throw error;
      }
    }
  } finally {
    rememberWith(memory);
  }
  return known >= TRIED / 2;
}
