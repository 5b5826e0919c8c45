import type { LoadProgram } from '../load/types.ts';
import { type BrowserCosts, type Conditions, REFERENCE_COSTS } from './conditions.ts';
import type { Timer } from './event-queue.ts';
import { Fetcher } from './fetcher.ts';
import { Fonts } from './fonts.ts';
import type { HttpCache } from './http-cache.ts';
import { MainThread } from './main-thread.ts';
import { notWanted } from './not-wanted.ts';
import type { PageContext, PageEnvironment, PageNetwork } from './page-context.ts';
import { Parser } from './parser.ts';
import { Renderer } from './renderer.ts';
import { Scripts } from './scripts.ts';
import { Triggers } from './triggers.ts';
import type { PageMoments, Reveal, Timeline } from './types.ts';

/** One simulated page: its pieces, each of which knows of the others only what `pieces.ts` names. */
export class Page implements PageContext {
  readonly clock: Timer;
  readonly network: PageNetwork;
  readonly httpCache: HttpCache;
  readonly documentAhead: PageEnvironment['documentAhead'];
  readonly prepare: PageEnvironment['prepare'];
  readonly begins: 'landing' | 'link' | 'unseen';
  readonly costs: BrowserCosts;
  readonly mainThread: MainThread;
  readonly fetcher: Fetcher;
  readonly scripts: Scripts;
  readonly parser: Parser;
  readonly fonts: Fonts;
  readonly renderer: Renderer;
  readonly triggers: Triggers;
  readonly reveals: Reveal[] = [];
  readonly moments: PageMoments = {
    bodyInserted: Number.NaN,
    domInteractive: Number.NaN,
    domContentLoaded: Number.NaN,
    load: Number.NaN,
    firstContent: Number.NaN,
    firstContentCause: null,
  };
  outdated = false;
  viewport: { width: number; height: number };

  constructor(
    readonly program: LoadProgram,
    readonly conditions: Conditions,
    environment: PageEnvironment,
  ) {
    this.clock = environment.clock;
    this.network = environment.network;
    this.httpCache = environment.httpCache;
    this.documentAhead = environment.documentAhead;
    this.prepare = environment.prepare;
    this.begins = environment.begins ?? 'landing';
    this.costs = conditions.device.costs ?? REFERENCE_COSTS;
    this.viewport = conditions.device.viewport;
    this.mainThread = new MainThread(this.clock);
    this.fetcher = new Fetcher(this);
    this.scripts = new Scripts(this);
    this.parser = new Parser(this);
    this.fonts = new Fonts(this);
    this.renderer = new Renderer(this);
    this.triggers = new Triggers(this);
  }

  /** Sends the navigation, and schedules what the visitor does. */
  begin(): void {
    for (const step of this.program.steps) this.triggers.step(step);
    this.parser.start();
    this.renderer.start();
  }

  /** What happened, once nothing happens any more. Times in ms from the navigation. */
  timeline(): Timeline {
    const timeline: Timeline = {
      requests: this.fetcher.requests,
      tasks: this.mainThread.tasks,
      reveals: this.reveals,
      moments: this.moments,
      steps: this.triggers.steps,
    };
    this.fetcher.settleRoles();
    notWanted(timeline, this.program);
    return timeline;
  }
}
