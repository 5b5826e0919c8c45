import type { LoadProgram } from '../load/types.ts';
import type { BrowserCosts, Conditions } from './conditions.ts';
import type { Timer } from './event-queue.ts';
import type { HttpCache } from './http-cache.ts';
import type { MainThread } from './main-thread.ts';
import type { Exchange } from './network.ts';
import type { Cause, PageMoments, Reveal } from './types.ts';

/** What a page finds when it begins: time, network and cache, and what an earlier page of the visit did for it. */
export interface PageEnvironment {
  readonly clock: Timer;
  readonly network: PageNetwork;
  readonly httpCache: HttpCache;
  /** Calls back once the document that was fetched ahead has arrived; missing where none was asked for. */
  readonly documentAhead?: (then: () => void) => void;
  /** How it is opened: anew, by a link of another page, or unseen before somebody follows one; a landing where nothing is said. */
  readonly begins?: 'landing' | 'link' | 'unseen';
  /** Opens a document unseen; false where nobody goes there next. */
  readonly prepare?: (address: string) => boolean;
}

/** What every piece of a simulated page may know: what is loaded, under which conditions, and what has happened. */
export interface PageContext extends PageEnvironment {
  readonly program: LoadProgram;
  readonly conditions: Conditions;
  readonly costs: BrowserCosts;
  readonly mainThread: MainThread;
  readonly moments: PageMoments;
  readonly reveals: Reveal[];
  /** Set once the app was deployed again while this page is open: files that it hasn't fetched yet are gone. */
  outdated: boolean;
  /** Size of the screen in CSS pixels. */
  viewport: { width: number; height: number };
}

/** The network as one page sees it. */
export interface PageNetwork {
  exchange(exchange: Exchange): void;
  lookUp(origin: string): void;
  preconnect(origin: string, anonymous: boolean, byEarlyHint?: boolean): void;
}

/** A cost of the browser itself on this device, in ms; `ms` is what it costs on the reference machine. */
export function browserMs({ conditions, program }: Pick<PageContext, 'conditions' | 'program'>, ms: number): number {
  return ms * conditions.device.browserFactor * (program.browserShare ?? 1);
}

/** A cost of the browser outside of the page's thread, in the same way. */
export function backgroundMs({ conditions, program }: Pick<PageContext, 'conditions' | 'program'>, ms: number): number {
  const { browserFactor, backgroundFactor = browserFactor } = conditions.device;
  return ms * backgroundFactor * (program.browserShare ?? 1);
}

/** The progress of a request at this instant, as a cause. */
export function byRequest(
  { clock }: Pick<PageContext, 'clock'>,
  kind: Cause['kind'],
  what: string,
  request: number,
): Cause {
  return { kind, what, at: clock.now, request, task: -1 };
}

/** The end of a task at this instant, as a cause. */
export function byTask({ clock }: Pick<PageContext, 'clock'>, kind: Cause['kind'], what: string, task: number): Cause {
  return { kind, what, at: clock.now, request: -1, task };
}
