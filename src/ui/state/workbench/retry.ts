import { Refusal } from '../api.ts';

/** How long until saving is tried again, in ms. */
const RETRY_MS = 3000;

/** Whether the server, or what it writes to, may come back by itself. */
export function comesBack(error: unknown): error is Refusal {
  return error instanceof Refusal && (error.status === 0 || error.status === 429 || error.status >= 500);
}

/** Tries something again in a while; asked again before that, it waits anew from then on. */
export class Retry {
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly again: () => void) {}

  later(): void {
    this.stop();
    this.timer = setTimeout(this.again, RETRY_MS);
  }

  stop(): void {
    clearTimeout(this.timer);
  }
}
