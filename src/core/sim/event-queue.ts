/** What the pieces of a page know of time: ms from its navigation. */
export interface Timer {
  readonly now: number;
  at(time: number, run: () => void): void;
}

/** Event queue over continuous time: a binary heap, ties in the order of scheduling. */
export class EventQueue implements Timer {
  now: number;
  private readonly times: number[] = [];
  private readonly order: number[] = [];
  private readonly tasks: (() => void)[] = [];
  private scheduled = 0;

  /** `begins`: the first instant, which may lie before that from which a page counts. */
  constructor(begins = 0) {
    this.now = begins;
  }

  /** Schedules something at an instant; never before now. */
  at(time: number, run: () => void): void {
    let hole = this.tasks.length;
    const when = Math.max(time, this.now);
    const seq = this.scheduled++;
    while (hole > 0) {
      const up = (hole - 1) >> 1;
      if (this.times[up] <= when) break;
      this.move(up, hole);
      hole = up;
    }
    this.set(hole, when, seq, run);
  }

  /** Runs until nothing is left or `limit` events have run. Gives whether it came to the end. */
  run(limit: number): boolean {
    for (let n = 0; this.tasks.length > 0; n++) {
      if (n >= limit) return false;
      this.step();
    }
    return true;
  }

  /** When the next event is due; null when nothing is left. */
  get nextAt(): number | null {
    return this.tasks.length > 0 ? this.times[0] : null;
  }

  /** Runs what is due up to an instant, which is the present from then on. */
  runUntil(time: number): void {
    while (this.tasks.length > 0 && this.times[0] <= time) this.step();
    this.now = Math.max(this.now, time);
  }

  private step(): void {
    this.now = this.times[0];
    const next = this.tasks[0];
    this.removeFirst();
    next();
  }

  private removeFirst(): void {
    const last = this.tasks.length - 1;
    const time = this.times.pop()!;
    const seq = this.order.pop()!;
    const run = this.tasks.pop()!;
    if (last === 0) return;
    let hole = 0;
    for (;;) {
      let child = 2 * hole + 1;
      if (child >= last) break;
      if (child + 1 < last && this.before(child + 1, child)) child++;
      if (time < this.times[child] || (time === this.times[child] && seq < this.order[child])) break;
      this.move(child, hole);
      hole = child;
    }
    this.set(hole, time, seq, run);
  }

  private before(a: number, b: number): boolean {
    return this.times[a] < this.times[b] || (this.times[a] === this.times[b] && this.order[a] < this.order[b]);
  }

  private move(from: number, to: number): void {
    this.set(to, this.times[from], this.order[from], this.tasks[from]);
  }

  private set(at: number, time: number, seq: number, run: () => void): void {
    this.times[at] = time;
    this.order[at] = seq;
    this.tasks[at] = run;
  }
}
