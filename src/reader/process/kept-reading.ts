import { InputError } from '../../core/errors.ts';
import { type ReadLimits, readLimits } from '../limits.ts';
import { ReadingChild, runReading } from './run-reading.ts';
import type { Read, ReadNow, ReadWork, Told } from './work.ts';

/**
 * A folder that is read again and again, by a process that stays and remembers what didn't change. A reading in which that process ends is done
 * by one that names, and leaves aside, the file that ended it.
 */
export class KeptReading {
  private child: ReadingChild | null = null;
  private waiting: { give: (now: ReadNow) => void; refuse: (error: Error) => void } | null = null;
  private texts: Record<string, string> = {};
  private sources: Record<string, string> = {};
  private closed = false;
  /** Files around the folder of which the last reading took the text; paths from the folder. */
  around: readonly string[] = [];

  /** `script`: the file in which the process begins, as built. `memory`: the folder in which readings remember. */
  constructor(
    private readonly work: ReadWork,
    private readonly script: string,
    private readonly memory: string | null,
    private readonly limits: ReadLimits = readLimits(),
  ) {}

  /** Reads the folder as it is now. One reading at a time. Rejects with an InputError for what can't be read. */
  async read(): Promise<Read> {
    if (this.waiting) throw new Error('the reading before is not over');
    const now = await this.byTheOneThatStays();
    if (now) return this.taken(now);
    if (this.closed) throw new InputError('Stopped', 'The folder isn’t read any more.');
    const read = await runReading(this.work, this.script, { memory: this.memory, limits: this.limits }).done;
    this.texts = read.texts;
    this.sources = read.sources;
    return read;
  }

  close(): void {
    this.closed = true;
    this.child?.kill();
  }

  /** Null where the process ends over it. */
  private async byTheOneThatStays(): Promise<ReadNow | null> {
    const child = this.child ?? this.begun();
    const answer = new Promise<ReadNow>((give, refuse) => {
      this.waiting = { give, refuse };
    });
    child.readNow();
    try {
      return await Promise.race([answer, child.ended.then(() => null)]);
    } finally {
      this.waiting = null;
    }
  }

  private begun(): ReadingChild {
    const told = (by: Told) => {
      if ('now' in by) this.waiting?.give(by.now);
      else if ('refused' in by) {
        const { title, detail, at, offers } = by.refused;
        this.waiting?.refuse(new InputError(title, detail, at, offers));
      }
    };
    const { work, memory, script, limits } = this;
    const child = new ReadingChild({ work, skip: [], memory, alone: false, stays: true }, script, told, limits);
    this.child = child;
    // It knows nothing of what was told before.
    this.texts = {};
    this.sources = {};
    void child.ended.then(() => {
      if (this.child === child) this.child = null;
    });
    return child;
  }

  private taken({ snapshot, texts, sources, gone, around, ms }: ReadNow): Read {
    this.around = around;
    this.texts = joined(this.texts, texts, gone.texts);
    this.sources = joined(this.sources, sources, gone.sources);
    return { snapshot, texts: this.texts, sources: this.sources, ms };
  }
}

/** Texts as they were with those that changed, in the order of a reading: that of their paths. */
function joined(
  before: Readonly<Record<string, string>>,
  changed: Readonly<Record<string, string>>,
  gone: readonly string[],
): Record<string, string> {
  const all = new Map(Object.entries({ ...before, ...changed }));
  for (const path of gone) all.delete(path);
  return Object.fromEntries([...all].sort(([a], [b]) => (a < b ? -1 : 1)));
}
