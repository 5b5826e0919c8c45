import type { VisitProgram } from '../load/types.ts';
import { type Conditions, REFERENCE_COSTS } from './conditions.ts';
import { EventQueue, type Timer } from './event-queue.ts';
import { HttpCache } from './http-cache.ts';
import { Network } from './network.ts';
import { Page } from './page.ts';
import type { PageNetwork } from './page-context.ts';
import { checkConditions, EVENT_LIMIT, tooLong } from './simulate.ts';
import type { RequestRecord, Timeline } from './types.ts';
import { type Moment, Visitor } from './visitor.ts';

/** What the simulator gives for a visit: a timeline per page, each with times from its own navigation. */
export interface VisitTimeline {
  pages: { startedAt: number; timeline: Timeline }[];
  /** What was played, in order. A visit whose last moment isn't over, or that has fewer than asked, got stuck there. */
  moments: Moment[];
  stopped?: string;
}

/**
 * Plays a visit: one page after another over the same link, with the connections, the files and (within a page) the
 * evaluated code that were there before. Deterministic; throws InputError for conditions that mean nothing.
 */
export function simulateVisit(visit: VisitProgram, conditions: Conditions): VisitTimeline {
  checkConditions(conditions);
  const played = new PlayedVisit(visit, conditions);
  played.open(0, -1, Number.NaN);
  const ended = played.clock.run(EVENT_LIMIT);
  const pages = played.pages.map(({ page, time }) => ({ startedAt: time.begun, timeline: page.timeline() }));
  creditLater(pages.map((d) => d.timeline));
  return { pages, moments: played.moments, ...(ended ? {} : { stopped: tooLong(played.clock.now) }) };
}

/** The pages of a visit one after another, with the link and the cache that they share. */
class PlayedVisit {
  readonly clock: EventQueue;
  readonly moments: Moment[] = [];
  readonly pages: OpenPage[] = [];
  private readonly headStart: number;
  private readonly httpCache: HttpCache;
  /** Documents that were prepared before anybody went there. */
  private readonly prepared = new Set<number>();
  private network: Network;

  constructor(
    private readonly visit: VisitProgram,
    private readonly conditions: Conditions,
  ) {
    this.headStart = (conditions.device.costs ?? REFERENCE_COSTS).headStart;
    this.clock = new EventQueue(-this.headStart);
    this.httpCache = new HttpCache(conditions.cache);
    this.network = new Network(this.clock, conditions.link, conditions.cache === 'empty');
  }

  /** Goes to a page, and has its visitor take the steps there. `approach`: when the person came near what leads there. */
  open(at: number, step: number, approach: number): void {
    const { visit, pages, prepared } = this;
    if (prepared.has(at)) leavePage(pages[at - 1]);
    else this.begin(at, false);
    const { page, time } = pages[at];
    const goOn = (step: { index: number }, since: number) => this.goOn(at, step.index, since);
    const deploy = () => this.httpCache.deploy(visit.documents.flatMap((d) => d.program.resources));
    const visitor = new Visitor(page, visit.documents[at], this.moments, at, goOn, deploy);
    visitor.start(step, approach, prepared.has(at) ? time.now : 0);
  }

  /** From one page to the next, at once or after the person was away. */
  private goOn(at: number, step: number, since: number): void {
    const next = this.visit.documents[at + 1];
    if (!next) return;
    if (next.begins !== 'return') {
      this.open(at + 1, step, since);
      return;
    }
    leavePage(this.pages[at]);
    this.clock.at(this.clock.now + next.awayMs, () => {
      this.network = new Network(this.clock, this.conditions.link, false);
      this.open(at + 1, step, Number.NaN);
    });
  }

  /** Begins with a page; the one before it stays until this one has its first bytes, or is shown if it came unseen. */
  private begin(at: number, unseen: boolean): void {
    const { visit, clock, httpCache, pages } = this;
    const { program } = visit.documents[at];
    const before = pages.at(-1);
    const begins = unseen ? 'unseen' : visit.documents[at].begins === 'link' ? 'link' : 'landing';
    const time = new PageClock(clock, clock.now + (begins === 'landing' ? this.headStart : 0));
    const leave = () => before && !unseen && leavePage(before);
    const seen = new PageLink(this.network, time, leave);
    const ahead = before?.page.fetcher.documentAhead(program.document.address) ?? -1;
    const documentAhead = (then: () => void) =>
      before!.page.fetcher.onArrival(ahead, () => {
        leave();
        then();
      });
    const environment = {
      ...({ clock: time, network: seen, httpCache, begins } as const),
      prepare: (address: string) => this.prepare(at + 1, address),
      ...(ahead < 0 ? {} : { documentAhead }),
    };
    const page = new Page(program, this.conditions, environment);
    pages.push({ page, time });
    page.begin();
  }

  /** Begins unseen with a page that a link leads to, if it is the one at the address; gives whether it is. */
  private prepare(at: number, address: string): boolean {
    const next = this.visit.documents[at];
    if (next?.begins !== 'link' || next.program.document.address !== address) return false;
    if (!this.prepared.has(at)) this.begin(at, true);
    this.prepared.add(at);
    return true;
  }
}

interface OpenPage {
  page: Page;
  time: PageClock;
}

function leavePage({ page, time }: OpenPage): void {
  page.fetcher.cutOff();
  time.close();
}

/** What one page fetched in case, and another one of the visit used, was no waste. */
function creditLater(timelines: Timeline[]): void {
  const used = new Set<string>();
  const isUnused = ({ role }: RequestRecord) => role === 'in case' || role === 'wasted';
  for (const { requests } of timelines.toReversed()) {
    for (const r of requests) if (isUnused(r) && used.has(r.address)) r.role = 'hinted';
    for (const r of requests) if (!isUnused(r)) used.add(r.address);
  }
}

/** Time as one page knows it: from its navigation on, and only until it is closed. */
class PageClock implements Timer {
  closed = false;

  constructor(
    private readonly clock: EventQueue,
    /** The instant from which the page counts. */
    readonly begun: number,
  ) {}

  get now(): number {
    return this.clock.now - this.begun;
  }

  at(time: number, run: () => void): void {
    this.clock.at(time + this.begun, () => {
      if (!this.closed) run();
    });
  }

  close(): void {
    this.closed = true;
  }
}

/** The network as one page sees it; its first answer is when the page before gives way. */
class PageLink implements PageNetwork {
  private committed = false;

  constructor(
    private readonly network: Network,
    private readonly page: PageClock,
    private readonly commit: () => void,
  ) {}

  exchange(exchange: Parameters<PageNetwork['exchange']>[0]): void {
    const { page } = this;
    const { begun } = page;
    const open = (then: () => void) => () => {
      if (!page.closed) then();
    };
    this.network.exchange({
      ...exchange,
      ...(exchange.early ? { early: open(exchange.early) } : {}),
      reached: open(() => exchange.reached()),
      served: open(() => exchange.served()),
      dropped: () => page.closed,
      progress: (total, { from, to, bytes }) => {
        if (page.closed) return;
        if (!this.committed) {
          this.committed = true;
          this.commit();
        }
        exchange.progress(total, { from: from - begun, to: to - begun, bytes });
      },
    });
  }

  lookUp(origin: string): void {
    this.network.lookUp(origin);
  }

  preconnect(origin: string, anonymous: boolean, byEarlyHint?: boolean): void {
    this.network.preconnect(origin, anonymous, byEarlyHint);
  }
}
