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
  const { headStart } = conditions.device.costs ?? REFERENCE_COSTS;
  const clock = new EventQueue(-headStart);
  const httpCache = new HttpCache(conditions.cache);
  const moments: Moment[] = [];
  const pages: OpenPage[] = [];
  const prepared = new Set<number>();
  let network = new Network(clock, conditions.link, conditions.cache === 'empty');
  const deploy = () => httpCache.deploy(visit.documents.flatMap((d) => d.program.resources));
  /** Begins with a page; the one before it stays until this one has its first bytes, or is shown if it came unseen. */
  const begin = (at: number, unseen: boolean) => {
    const { program } = visit.documents[at];
    const before = pages.at(-1);
    const begins = unseen ? 'unseen' : visit.documents[at].begins === 'link' ? 'link' : 'landing';
    const time = new PageClock(clock, clock.now + (begins === 'landing' ? headStart : 0));
    const leave = () => before && !unseen && leavePage(before);
    const seen = new PageLink(network, time, leave);
    const ahead = before?.page.fetcher.documentAhead(program.document.address) ?? -1;
    const documentAhead = (then: () => void) =>
      before!.page.fetcher.onArrival(ahead, () => {
        leave();
        then();
      });
    const prepare = (address: string) => {
      const next = visit.documents[at + 1];
      if (next?.begins !== 'link' || next.program.document.address !== address) return false;
      if (!prepared.has(at + 1)) begin(at + 1, true);
      prepared.add(at + 1);
      return true;
    };
    const environment = {
      ...({ clock: time, network: seen, httpCache, prepare, begins } as const),
      ...(ahead < 0 ? {} : { documentAhead }),
    };
    const page = new Page(program, conditions, environment);
    pages.push({ page, time });
    page.begin();
  };
  const open = (at: number, step: number, approach: number) => {
    const document = visit.documents[at];
    if (prepared.has(at)) leavePage(pages[at - 1]);
    else begin(at, false);
    const { page, time } = pages[at];
    const visitor = new Visitor(
      page,
      document,
      moments,
      at,
      (step, since) => {
        const next = visit.documents[at + 1];
        if (!next) return;
        if (next.begins !== 'return') {
          open(at + 1, step.index, since);
          return;
        }
        leavePage({ page, time });
        clock.at(clock.now + next.awayMs, () => {
          network = new Network(clock, conditions.link, false);
          open(at + 1, step.index, Number.NaN);
        });
      },
      deploy,
    );
    visitor.start(step, approach, prepared.has(at) ? time.now : 0);
  };
  open(0, -1, Number.NaN);
  const ended = clock.run(EVENT_LIMIT);
  const done = pages.map(({ page, time }) => ({ startedAt: time.begun, timeline: page.timeline() }));
  creditLater(done.map((d) => d.timeline));
  return { pages: done, moments, ...(ended ? {} : { stopped: tooLong(clock.now) }) };
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
