import os from 'node:os';
import { MessageChannel, type MessagePort, receiveMessageOnPort, Worker } from 'node:worker_threads';
import { filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { kindOf } from '../graph/kinds.ts';
import { scriptSaid } from '../graph/script-said.ts';
import { type AheadWork, aroundScript } from './ahead-work.ts';
import type { FilesMemory } from './files-memory.ts';
import { digestOf, type Memory, rememberWith } from './memory.ts';

/** Fewer scripts are read before threads have begun. */
const WORTH_IT = 400;
const MOST_THREADS = 7;

/**
 * Threads that find out what the scripts of a folder say, while the reading follows imports: it takes over what is there by then, and finds out
 * itself what isn't, so that what it gives doesn't hang on who was faster. They begin with what the reading comes to last.
 */
export class Ahead implements Memory {
  private readonly ports: MessagePort[] = [];
  private readonly workers: Worker[] = [];

  private constructor(
    private readonly beneath: Memory,
    work: Omit<AheadWork, 'files'>,
    files: string[],
    threads: number,
  ) {
    for (let n = 0; n < threads; n++) {
      const { port1, port2 } = new MessageChannel();
      const own = files.filter((_, i) => i % threads === n);
      const worker = new Worker(new URL('./ahead-worker.js', import.meta.url), {
        workerData: { ...work, files: own, to: port2 },
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
    { root, jsxImportSource }: Omit<AheadWork, 'files'>,
    cores = os.availableParallelism(),
  ): { memory: Memory; stop: () => void } {
    const threads = Math.min(cores - 1, MOST_THREADS);
    const none = { memory: beneath, stop: () => {} };
    if (threads < 1) return none;
    const files = filesBelow(root).filter((f) => kindOf(f) === 'script' && !f.endsWith('.d.ts'));
    if (files.length < WORTH_IT || areKnown(beneath, files, root, jsxImportSource)) return none;
    const ahead = new Ahead(beneath, { root, jsxImportSource }, files.reverse(), threads);
    return { memory: ahead, stop: () => ahead.stop() };
  }

  recall(key: string): unknown {
    const known = this.beneath.recall(key);
    if (known !== undefined || !key.startsWith('script ')) return known;
    this.takeOver();
    return this.beneath.recall(key);
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
        const [key, value] = told.message as [string, unknown];
        this.beneath.keep(key, value);
      }
  }

  private stop(): void {
    for (const worker of this.workers) void worker.terminate();
    for (const port of this.ports) port.close();
  }
}

/** So many of the scripts are tried. */
const TRIED = 8;

/** Whether an earlier reading found out what most of the scripts say. */
function areKnown(memory: Memory, files: readonly string[], root: string, jsxImportSource: string): boolean {
  const step = Math.floor(files.length / TRIED);
  let known = 0;
  const asked = new Error('only asked');
  rememberWith({
    recall: (key) => {
      if (memory.recall(key) !== undefined) known++;
      throw asked;
    },
    keep: () => {},
    digest: digestOf,
    files: null,
  });
  try {
    for (let n = 0; n < TRIED; n++) {
      const file = files[n * step];
      try {
        scriptSaid(file, textIfThere(root, file) ?? '', aroundScript(root, file, jsxImportSource));
      } catch (error) {
        if (error !== asked) throw error;
      }
    }
  } finally {
    rememberWith(memory);
  }
  return known >= TRIED / 2;
}
