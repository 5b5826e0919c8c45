import type { Page, Request } from 'playwright-core';

/** So long nothing has to come, or be asked for, until a page counts as quiet; so long it is waited for at most. In ms. */
const QUIET_MS = 700;
const MOST_MS = 90_000;
const LOOK_MS = 50;

/** Waits until a page asks for nothing, waits for nothing and changes nothing. Gives whether that came about. */
export class Quiet {
  private readonly open = new Set<Request>();
  private last = performance.now();

  constructor(private readonly page: Page) {
    page.on('request', (r) => this.happened(() => this.open.add(r)));
    const ended = (r: Request) => this.happened(() => this.open.delete(r));
    page.on('requestfinished', ended);
    page.on('requestfailed', ended);
  }

  /** `changes`: how often the page has changed, and how far its thread is. `slower`: times that the thread is slowed. */
  async come(changes: () => Promise<string>, slower: number, stopped: () => boolean): Promise<boolean> {
    const began = performance.now();
    const quiet = QUIET_MS * Math.max(1, slower / 2);
    let known = '';
    while (performance.now() - began < MOST_MS && !stopped()) {
      await this.page.waitForTimeout(LOOK_MS);
      const now = await changes();
      if (now !== known) this.happened(() => {});
      known = now;
      if (this.open.size === 0 && performance.now() - this.last >= quiet) return true;
    }
    return false;
  }

  private happened(what: () => void): void {
    what();
    this.last = performance.now();
  }
}
