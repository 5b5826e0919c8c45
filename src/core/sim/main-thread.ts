import type { Timer } from './event-queue.ts';
import type { Cause, TaskRecord } from './types.ts';

interface Waiting {
  record: TaskRecord;
  index: number;
  ms: number;
  done: () => void;
}

/** The page's one main thread: tasks run one at a time, in the order in which they became ready. */
export class MainThread {
  readonly tasks: TaskRecord[] = [];
  private readonly queue: Waiting[] = [];
  private running = false;
  private readonly whenFree: (() => void)[] = [];

  constructor(private readonly clock: Timer) {}

  get idle(): boolean {
    return !this.running && this.queue.length === 0;
  }

  /** Queues a task of so many ms; calls back at its end. Gives its index in `tasks`. */
  add(kind: TaskRecord['kind'], name: string, ms: number, cause: Cause, request: number, done: () => void): number {
    return this.queued({ kind, name, request }, ms, cause, done);
  }

  /** Queues the drawing of a part, as `add`; `anew`: with the answers that fill it. */
  draw(part: { at: number; name: string; anew?: true }, ms: number, cause: Cause, done: () => void): number {
    const { at, name, anew } = part;
    return this.queued({ kind: 'render', name, request: -1, part: at, ...(anew ? { anew } : {}) }, ms, cause, done);
  }

  private queued(
    of: Pick<TaskRecord, 'kind' | 'name' | 'request' | 'part' | 'anew'>,
    ms: number,
    cause: Cause,
    done: () => void,
  ): number {
    const { now } = this.clock;
    const record: TaskRecord = { ...of, ready: now, start: now, end: now, cause };
    const index = this.tasks.push(record) - 1;
    this.queue.push({ record, index, ms, done });
    this.next();
    return index;
  }

  /** Calls back once the thread has nothing to do. */
  onIdle(then: () => void): void {
    if (this.idle) then();
    else this.whenFree.push(then);
  }

  private next(): void {
    if (this.running) return;
    const task = this.queue.shift();
    if (!task) {
      for (const then of this.whenFree.splice(0)) then();
      return;
    }
    this.running = true;
    task.record.start = this.clock.now;
    task.record.end = this.clock.now + task.ms;
    this.clock.at(task.record.end, () => {
      this.running = false;
      task.done();
      this.next();
    });
  }
}
