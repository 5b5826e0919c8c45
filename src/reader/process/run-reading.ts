import type { ChildProcess } from 'node:child_process';
import { InputError } from '../../core/errors.ts';
import { type ReadLimits, readLimits } from '../limits.ts';
import { BEGUN_BYTES, type Begun, FILES, type Left, type Read, type ReadWork } from './work.ts';

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

/**
 * Reads an app in a process of its own, with limits of time without progress, of memory and of size. A file in which the
 * process ends is left aside with its reason, and the rest is read; what else ends it is told with the file or step that it had begun.
 * `script`: the file in which the process begins, `reading-process.js` as built.
 */
export function runReading(
  work: ReadWork,
  script: string,
  onProgress: (read: number, known: number) => void = () => {},
  limits: ReadLimits = readLimits(),
): Reading {
  const skip = new Map<string, string>();
  let running: Try | null = null;
  let stopped = false;
  const attempt = async (): Promise<Read> => {
    running = new Try(work, skip, script, onProgress, limits);
    const end = await running.ended;
    if (stopped) return new Promise(() => {});
    if (end.left?.kind === 'read') return end.left.read;
    if (end.left?.kind === 'refused')
      throw new InputError(end.left.error.title, end.left.error.detail, end.left.error.at, end.left.error.offers);
    const { begun, why } = end;
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
}

/** One process, from its start to its end. */
class Try {
  readonly ended: Promise<End>;
  private readonly child: ChildProcess;
  private readonly folder: string;
  private stuck = false;
  private errors = '';

  constructor(
    work: ReadWork,
    skip: ReadonlyMap<string, string>,
    script: string,
    told: (read: number, known: number) => void,
    private readonly limits: ReadLimits,
  ) {
    // Not imported: a build for the web would look for the process in its own bundle.
    const fs = process.getBuiltinModule('node:fs');
    const path = process.getBuiltinModule('node:path');
    const os = process.getBuiltinModule('node:os');
    const v8 = process.getBuiltinModule('node:v8');
    const { fork } = process.getBuiltinModule('node:child_process');
    this.folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-reading-'));
    fs.writeFileSync(path.join(this.folder, FILES.handed), v8.serialize({ work, skip: [...skip] }));
    this.child = fork(script, [this.folder], {
      execArgv: [`--max-old-space-size=${limits.memoryMB}`],
      env: { ...process.env, YOKELINE_READ_FILE_MB: String(limits.fileBytes / 1e6) },
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    });
    this.child.stderr?.on('data', (piece: Buffer) => {
      this.errors = (this.errors + piece.toString()).slice(-STDERR_KEPT);
    });
    this.child.on('message', (message) => {
      const { read, known } = message as { read: number; known: number };
      told(read, known);
    });
    let seen = '';
    let since = Date.now();
    const look = setInterval(() => {
      const now = this.begunText();
      if (now !== seen) {
        seen = now;
        since = Date.now();
      } else if (Date.now() - since > (this.begun() ? limits.idleMs : Math.max(limits.idleMs, START_MS))) {
        this.stuck = true;
        this.kill();
      }
    }, LOOK_MS);
    this.ended = new Promise((give) => {
      const over = (code: number | null, signal: string | null) => {
        clearInterval(look);
        const left = this.leftBehind();
        const end = { left, begun: this.begun(), why: this.why(left, code, signal) };
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

  private leftBehind(): Left | null {
    const fs = process.getBuiltinModule('node:fs');
    const v8 = process.getBuiltinModule('node:v8');
    try {
      return v8.deserialize(fs.readFileSync(`${this.folder}/${FILES.left}`)) as Left;
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
