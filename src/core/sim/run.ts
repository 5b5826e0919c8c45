import type { LoadProgram } from '../load/types.ts';
import type { Timer } from './clock.ts';
import type { BrowserCosts, Conditions } from './conditions.ts';
import type { Fetcher } from './fetcher.ts';
import type { Kept } from './kept.ts';
import type { Exchange } from './network.ts';
import type { Surroundings } from './page.ts';
import type { Parser } from './parser.ts';
import type { Screen } from './screen.ts';
import type { Scripts } from './scripts.ts';
import type { Thread } from './thread.ts';
import type { Triggers } from './triggers.ts';
import type { Cause, PageMoments, Reveal } from './types.ts';

/** The pieces of one simulated page load, which know each other through this. */
export interface Run {
  program: LoadProgram;
  conditions: Conditions;
  costs: BrowserCosts;
  clock: Timer;
  network: PageNetwork;
  kept: Kept;
  documentAhead?: Surroundings['documentAhead'];
  prepare?: Surroundings['prepare'];
  /** Set once the app was deployed anew while this page is open: files that it didn't fetch yet are gone. */
  outdated: boolean;
  viewport: { width: number; height: number };
  thread: Thread;
  fetcher: Fetcher;
  scripts: Scripts;
  parser: Parser;
  screen: Screen;
  triggers: Triggers;
  moments: PageMoments;
  reveals: Reveal[];
}

/** The network as one page sees it. */
export interface PageNetwork {
  exchange(exchange: Exchange): void;
  preconnect(origin: string, anonymous: boolean): void;
}

/** A cost of the browser itself on this device. */
export function browserMs(run: Run, ms: number): number {
  return ms * run.conditions.device.browserFactor;
}

/** The progress of a request at this instant, as a cause. */
export function byRequest(run: Run, kind: Cause['kind'], what: string, request: number): Cause {
  return { kind, what, at: run.clock.now, request, task: -1 };
}

/** The end of a task at this instant, as a cause. */
export function byTask(run: Run, kind: Cause['kind'], what: string, task: number): Cause {
  return { kind, what, at: run.clock.now, request: -1, task };
}
