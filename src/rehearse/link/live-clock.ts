import { EventQueue } from '../../core/sim/event-queue.ts';

/** Shortest and longest timers that are set, in ms. */
const LEAST_MS = 1;
const MOST_MS = 10_000;

/**
 * The simulator’s events at their real time. Events run up to a millisecond late (timers aren’t finer), but each counts from the instant at
 * which the one before it was due, so that lateness doesn’t add up.
 */
export class LiveClock {
  readonly events = new EventQueue();
  private readonly began = performance.now();
  private timer: NodeJS.Timeout | null = null;
  private timerAt = Number.POSITIVE_INFINITY;

  /** Makes now the present, with all done that was due before; then does something, and waits for what that leaves to be done. */
  readonly do = (work: () => void): void => {
    this.events.runUntil(this.now);
    work();
    this.wait();
  };

  stop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.timerAt = Number.POSITIVE_INFINITY;
  }

  private get now(): number {
    return performance.now() - this.began;
  }

  private wait(): void {
    const { nextAt } = this.events;
    if (nextAt === null || nextAt >= this.timerAt) return;
    if (this.timer) clearTimeout(this.timer);
    this.timerAt = nextAt;
    const left = Math.min(MOST_MS, Math.max(LEAST_MS, nextAt - this.now));
    this.timer = setTimeout(() => {
      this.timer = null;
      this.timerAt = Number.POSITIVE_INFINITY;
      this.do(() => {});
    }, left);
  }
}
