import type { ChildProcess } from 'node:child_process';
import { InputError } from '../../core/errors.ts';
import { type ReadLimits, readLimits } from '../limits.ts';
import { readLeft } from './left-file.ts';
import { BEGUN_BYTES, type Begun, FILES, type Handed, type Left, type Read, type ReadWork, type Told } from './work.ts';

/** A reading that goes on in a process of its own. */
export interface Reading {
  /** What it reads; rejects with an InputError that names what it ended in, and never once it was stopped. */
  done: Promise<Read>;
  stop(): void;
}

/** So often it is looked at how far the process is. In ms. */
const LOOK_MS = 200;
/** Of so many files that end a reading the rest is tried without them. */
const MOST_LEFT_ASIDE = 20;
const STDERR_KEPT = 4000;
/** A process that has begun nothing yet is still starting, which takes long where the machine is busy. */
const START_MS = 60_000;

export interface HowRun {
  /** Hears how many files are read, and how many are known to come. */
  onProgress?: (read: number, known: number) => void;
  /** The folder in which readings remember what they found out. */
  memory?: string | null;
  limits?: ReadLimits;
}

/**
 * Reads an app in a process of its own, with limits of time without progress, of memory and of size. A file in which the
 * process ends is left aside with its reason, and the rest is read; what else ends it is told with the file or step that it had begun.
 * `script`: the file in which the process begins, `reading-process.js` as built.
 */
export function runReading(
  work: ReadWork,
  script: string,
  { onProgress = () => {}, memory = null, limits = readLimits() }: HowRun = {},
): Reading {
  const skip = new Map<string, string>();
  const told = (by: Told) => 'read' in by && onProgress(by.read, by.known);
  let running: ReadingChild | null = null;
  let stopped = false;
  let alone = false;
  const attempt = async (): Promise<Read> => {
    running = new ReadingChild({ work, skip: [...skip], memory, alone, stays: false }, script, told, limits);
    const end = await running.ended;
    if (stopped) return new Promise(() => {});
    if (end.left?.kind === 'read') return end.left.read;
    if (end.left?.kind === 'refused')
      throw new InputError(end.left.error.title, end.left.error.detail, end.left.error.at, end.left.error.offers);
    const { begun, why } = end;
    // It was at a file, and threads were at others: which one ended it shows without them.
    if (begun?.helped && end.left === null && !end.stuck) {
      alone = true;
      return attempt();
    }
    const canGoOn = begun?.isFile && !skip.has(begun.what) && skip.size < MOST_LEFT_ASIDE && why.ofFile !== null;
    if (begun && canGoOn) {
      skip.set(begun.what, why.ofFile!);
      return attempt();
    }
    throw new InputError('The reading ended early', why.ofAll, begun?.what);
  };
  return {
    done: attempt(),
    stop: () => {
      stopped = true;
      running?.kill();
    },
  };
}

interface End {
  left: Left | null;
  begun: Begun | null;
  /** In words: of the file that was begun last (null where it isn't its doing), and of the whole reading. */
  why: { ofFile: string | null; ofAll: string };
  /** It was ended because it got no further. */
  stuck: boolean;
}

/** Each reading makes as many things as an app has modules and imports, most of them for itself alone: with more room for what is new, in MB, fewer are moved about. */
const ROOM_FOR_THE_NEW = '--max-semi-space-size=64';
/** What a reading holds grows from its beginning to its end: by so much, in percent, before what is let go is collected. Left to itself the engine takes twice what is held. */
const GROWING = '--heap-growing-percent=25';

/** One process that reads, from its start to its end. */
export class ReadingChild {
  readonly ended: Promise<End>;
  private readonly child: ChildProcess;
  private readonly folder: string;
  private stuck = false;
  private errors = '';
  /** What it had begun when it was looked at last, and since when. */
  private seen = { begun: '', since: Date.now() };
  /** A process that stays has nothing to do in between. */
  private atWork: boolean;

  constructor(
    handed: Handed,
    script: string,
    told: (by: Told) => void,
    private readonly limits: ReadLimits,
  ) {
    // Not imported: a build for the web would look for the process in its own bundle.
    const fs = process.getBuiltinModule('node:fs');
    const path = process.getBuiltinModule('node:path');
    const os = process.getBuiltinModule('node:os');
    const v8 = process.getBuiltinModule('node:v8');
    const { fork } = process.getBuiltinModule('node:child_process');
    this.folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-reading-'));
    fs.writeFileSync(path.join(this.folder, FILES.handed), v8.serialize(handed));
    this.child = fork(script, [this.folder], {
      execArgv: [`--max-old-space-size=${limits.memoryMB}`, handed.stays ? ROOM_FOR_THE_NEW : GROWING],
      env: { ...process.env, YOKELINE_READ_FILE_MB: String(limits.fileBytes / 1e6) },
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
      serialization: 'advanced',
    });
    this.child.stderr?.on('data', (piece: Buffer) => {
      this.errors = (this.errors + piece.toString()).slice(-STDERR_KEPT);
    });
    this.child.on('message', (message) => {
      const by = message as Told;
      if (!('read' in by)) this.atWork = false;
      told(by);
    });
    this.atWork = !handed.stays;
    const look = setInterval(() => this.look(), LOOK_MS);
    this.ended = new Promise((give) => {
      const over = (code: number | null, signal: string | null) => {
        clearInterval(look);
        const left = readLeft(`${this.folder}/${FILES.left}`);
        const end = { left, begun: this.begun(), why: this.why(left, code, signal), stuck: this.stuck };
        fs.rmSync(this.folder, { recursive: true, force: true });
        give(end);
      };
      this.child.on('error', (error) => {
        this.errors += error.message;
        over(null, null);
      });
      this.child.on('exit', over);
    });
  }

  /** Has a process that stays read now. */
  readNow(): void {
    this.seen = { begun: this.begunText(), since: Date.now() };
    this.atWork = true;
    this.child.send('read');
  }

  /** Ends a process that gets no further. */
  private look(): void {
    const begun = this.begunText();
    if (!this.atWork || begun !== this.seen.begun) {
      this.seen = { begun, since: Date.now() };
      return;
    }
    const patience = this.begun() ? this.limits.idleMs : Math.max(this.limits.idleMs, START_MS);
    if (Date.now() - this.seen.since <= patience) return;
    this.stuck = true;
    this.kill();
  }

  kill(): void {
    this.child.kill('SIGKILL');
  }

  private begunText(): string {
    const fs = process.getBuiltinModule('node:fs');
    try {
      const text = fs.readFileSync(`${this.folder}/${FILES.begun}`);
      return text.subarray(0, BEGUN_BYTES).toString('utf8').replaceAll('\0', '');
    } catch {
      return '';
    }
  }

  private begun(): Begun | null {
    try {
      return JSON.parse(this.begunText()) as Begun;
    } catch {
      return null;
    }
  }

  private why(left: Left | null, code: number | null, signal: string | null): End['why'] {
    const { idleMs, memoryMB } = this.limits;
    if (this.stuck) {
      const ofFile = `it took more than ${idleMs / 1000} s, and is left aside (YOKELINE_READ_IDLE_S)`;
      return {
        ofFile,
        ofAll: `There was no progress for ${idleMs / 1000} s. Set YOKELINE_READ_IDLE_S higher if it only takes long.`,
      };
    }
    if (/heap out of memory|Allocation failed|invalid array length/i.test(this.errors))
      return {
        ofFile: null,
        ofAll: `It needs more than ${memoryMB} MB. Set YOKELINE_READ_MEMORY_MB higher, or read a smaller folder.`,
      };
    if (left?.kind === 'broke')
      return {
        ofFile: /RangeError|stack/i.test(left.message) ? DEEP : 'it can’t be read',
        ofAll: 'Something in it could not be understood. Take it out of the folder and read again.',
      };
    return {
      ofFile: DEEP,
      ofAll: `Its process ended (${signal ?? `exit code ${code}`}). Take what it had begun out of the folder and read again.`,
    };
  }
}

const DEEP = 'it is nested too deeply to be parsed, and is left aside';
