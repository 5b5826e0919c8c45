import type { DocumentLoad, LinkHint, MarkupItem } from '../load/types.ts';
import { reach } from './instants.ts';
import { backgroundMs, browserMs, byRequest, byTask, type PageContext } from './page-context.ts';
import {
  type Evaluating,
  type Fetching,
  type FetchRequest,
  type Parsing,
  type Rendering,
  type Triggering,
  withAttribute,
} from './pieces.ts';
import type { Cause, Priority, RequestRecord } from './types.ts';

const FIRST_IMAGES = 5;

/** The document: streaming in, the look-ahead scanner, the parser with what blocks it, and the load event. */
interface Needs extends PageContext {
  fetcher: Pick<Fetching, 'request' | 'requestOf' | 'onArrival' | 'hasArrived' | 'release' | 'addDocument'>;
  scripts: Evaluating;
  renderer: Pick<Rendering, 'parsed' | 'tryPaint'>;
  triggers: Pick<Triggering, 'start' | 'link' | 'perform' | 'loaded'>;
}

export class Parser implements Parsing {
  bodyInserted = false;
  /** What was the last to stop blocking rendering. */
  lastBlocker: Cause | null = null;
  private document = -1;
  private seenBytes = 0;
  /** When the page begins to read what has come of the document. */
  private openedAt = 0;
  private complete = false;
  private scanned = 0;
  private images = 0;
  private parsing: 'waiting' | 'ready' | 'blocked' | 'ended' = 'waiting';
  private next = 0;
  private readonly pendingStyles = new Set<number>();
  private readonly styleWaiters: (() => void)[] = [];
  private readonly deferred: number[] = [];
  private readonly holdsLoad = new Set<number>();
  private contentLoaded = false;

  constructor(private readonly page: Needs) {}

  get renderBlocked(): boolean {
    return this.pendingStyles.size > 0;
  }

  /** Sends the navigation request. */
  start(): void {
    const { page } = this;
    const { document } = page.program;
    const record = navigation(document.address);
    this.document = page.fetcher.addDocument(record);
    const pieces = piecesOf(document);
    if (page.documentAhead) {
      page.documentAhead(() => this.openAhead(record));
      return;
    }
    const early = document.earlyHints.length > 0 && page.conditions.link.protocol !== 'h1';
    const ask = () =>
      page.network.exchange({
        origin: '',
        anonymous: false,
        priority: 0,
        incremental: true,
        serverMs: document.serverMs,
        pieces,
        ...(document.flush.length > 0 ? { streams: true } : {}),
        ...(early ? { early: () => this.hints(document.earlyHints, 'early hint') } : {}),
        sent: (connection) => {
          reach(record, 'sent', page.clock.now);
          record.connection = connection;
        },
        reached: () => reach(record, 'reached', page.clock.now),
        served: () => reach(record, 'served', page.clock.now),
        progress: (total, piece) => this.arrived(record, total, piece),
      });
    this.connectFirst();
    const asks = page.begins === 'link' ? browserMs(page, page.costs.followLink) : 0;
    page.clock.at(asks, () => this.followRedirects(record, 0, ask));
  }

  /** On a new page the browser connects before the instant from which the page counts. */
  private connectFirst(): void {
    const { page } = this;
    if (page.begins !== 'landing') return;
    const origin = page.program.document.redirects?.[0]?.origin ?? '';
    page.clock.at(-page.costs.headStart, () => page.network.preconnect(origin, false));
  }

  /** Goes from one address to the next until the document's own, which asks then. */
  private followRedirects(record: RequestRecord, at: number, ask: () => void): void {
    const { page } = this;
    const redirect = page.program.document.redirects?.[at];
    if (!redirect) {
      ask();
      return;
    }
    page.network.exchange({
      ...{ origin: redirect.origin, anonymous: false, priority: 0, incremental: true },
      serverMs: redirect.serverMs,
      pieces: [{ bytes: 0, atMs: 0 }],
      sent: () => {},
      reached: () => {},
      served: () => {},
      progress: () => {
        record.redirectedAt = page.clock.now;
        page.clock.at(page.clock.now + browserMs(page, page.costs.redirect), () =>
          this.followRedirects(record, at + 1, ask),
        );
      },
    });
  }

  /** The document was fetched ahead: all of it is there, and nothing travels. */
  private openAhead(record: RequestRecord): void {
    const { page } = this;
    const { bytes } = page.program.document;
    page.clock.at(page.clock.now + browserMs(page, page.costs.openAhead), () => {
      const { now } = page.clock;
      reach(record, 'sent', now);
      this.arrived(record, bytes, { from: now, to: now, bytes: 0 });
      record.bytes = 0;
      record.fromCache = true;
    });
  }

  private hints(hints: LinkHint[], what: string): void {
    const cause = byRequest(this.page, 'header', what, this.document);
    for (const hint of hints) this.page.triggers.link(hint, cause, 'early hint');
  }

  private arrived(record: RequestRecord, total: number, piece: RequestRecord['pieces'][number]): void {
    const { page } = this;
    const first = record.pieces.length === 0;
    record.pieces.push(piece);
    record.bytes = total;
    this.seenBytes = total;
    this.complete = total >= page.program.document.bytes - 0.5;
    if (first) reach(record, 'firstByte', page.clock.now);
    if (this.complete) reach(record, 'end', page.clock.now);
    const cause = byRequest(page, 'parser', 'document', this.document);
    if (!first) {
      const read = page.clock.now + browserMs(page, page.costs.readPiece);
      page.clock.at(Math.max(read, this.openedAt), () => {
        this.scan(cause);
        // The look-ahead scanner has a thread of its own, the parser hasn't.
        page.mainThread.onIdle(() => this.parse());
      });
      return;
    }
    const { commit, discover, leavePage } = page.costs;
    const takesOver = page.begins === 'link' && !page.documentAhead ? leavePage : 0;
    this.openedAt = page.clock.now + backgroundMs(page, commit) + browserMs(page, discover + takesOver);
    const { linkHeader } = page.program.document;
    page.clock.at(this.openedAt, () => {
      for (const hint of linkHeader)
        page.triggers.link(hint, { ...cause, kind: 'header', what: 'Link header' }, 'markup');
      this.scan(cause);
      page.mainThread.add(
        'parse',
        'document',
        browserMs(page, page.costs.body - page.costs.discover),
        cause,
        this.document,
        () => {
          this.parsing = 'ready';
          this.parse();
        },
      );
    });
  }

  /** Requests whatever the bytes that have come mention, ahead of the parser. */
  private scan(cause: Cause): void {
    const { markup } = this.page.program.document;
    while (this.scanned < markup.length && (markup[this.scanned].at < this.seenBytes || this.complete)) {
      this.discover(markup[this.scanned++], cause);
    }
  }

  private discover(item: MarkupItem, cause: Cause): void {
    const { page } = this;
    const ask = (priority: Priority, more: Partial<FetchRequest> = {}): FetchRequest => ({
      cause,
      from: 'markup',
      priority,
      ...more,
    });
    switch (item.tag) {
      case 'link':
        page.triggers.link(item, cause, 'markup');
        if (item.rel === 'stylesheet') this.styleFound(item.resource);
        return;
      case 'script': {
        const late =
          this.images > 0 || page.program.document.markup.slice(0, this.scanned - 1).some((m) => m.tag === 'text');
        const normal: Priority = item.mode === 'module' ? 1 : item.mode === 'blocking' ? (late ? 2 : 1) : 3;
        const anonymous = item.mode === 'module' || item.mode === 'module-async';
        page.scripts.request(item.group, ask(withAttribute(normal, item.fetchpriority), { anonymous }));
        this.holdLoad(page.program.groups[item.group].resources);
        if (item.mode === 'async' || item.mode === 'module-async')
          page.scripts.evaluateWhenReady(item.group, page.costs.startAsync);
        return;
      }
      case 'rules':
        this.whenStyled(() => {
          for (const effect of item.do)
            page.triggers.perform(effect, { ...cause, at: page.clock.now, what: 'speculation rules' }, 'later');
        });
        return;
      case 'img': {
        if (item.lazy && !item.inView) return;
        const normal: Priority = this.images++ < FIRST_IMAGES ? 2 : 3;
        page.fetcher.request(item.resource, ask(withAttribute(normal, item.fetchpriority), { incremental: true }));
        if (!item.lazy) this.holdLoad([item.resource]);
      }
    }
  }

  private styleFound(resource: number): void {
    this.pendingStyles.add(resource);
    this.holdLoad([resource]);
    this.page.fetcher.onArrival(resource, (cause) => {
      this.pendingStyles.delete(resource);
      this.unblocked(cause);
      if (this.pendingStyles.size === 0) for (const then of this.styleWaiters.splice(0)) then();
    });
  }

  private unblocked(cause: Cause): void {
    if (!this.lastBlocker || cause.at >= this.lastBlocker.at) this.lastBlocker = cause;
    this.page.renderer.tryPaint();
  }

  /** Calls back once the styles that block rendering are there. */
  whenStyled(then: () => void): void {
    if (this.pendingStyles.size === 0) then();
    else this.styleWaiters.push(then);
  }

  private parse(): void {
    const { markup } = this.page.program.document;
    while (this.parsing === 'ready' && this.next < markup.length) {
      const item = markup[this.next];
      if (item.at >= this.seenBytes && !this.complete) return;
      this.next++;
      this.meet(item);
    }
    if (this.parsing === 'ready' && this.complete) this.ended();
  }

  private meet(item: MarkupItem): void {
    const { page } = this;
    switch (item.tag) {
      case 'body':
        this.insertBody();
        return;
      case 'text':
        this.insertBody();
        page.renderer.parsed(item.part, byRequest(page, 'parser', 'document', this.document));
        return;
      case 'img':
        this.insertBody();
        return;
      case 'script':
        if (item.mode === 'defer' || item.mode === 'module') this.deferred.push(item.group);
        else if (item.mode === 'blocking') this.blockOn(item.group);
        return;
      case 'inline':
        this.parsing = 'blocked';
        this.whenStyled(() => {
          const cause = this.lastBlocker ?? byRequest(page, 'parser', 'document', this.document);
          const ms = item.cpuMs * page.conditions.device.cpuFactor;
          const task = page.mainThread.add('evaluate', item.name, ms, cause, this.document, () => {
            const by = byTask(page, 'evaluation', item.name, task);
            for (const action of item.follow) page.triggers.start(action, by, item.name);
            this.resume(by);
          });
        });
    }
  }

  private blockOn(group: number): void {
    const { page } = this;
    this.parsing = 'blocked';
    page.scripts.whenReady(group, (arrival) => {
      this.whenStyled(() => {
        const cause = this.lastBlocker && this.lastBlocker.at > arrival.at ? this.lastBlocker : arrival;
        page.clock.at(
          page.clock.now + browserMs(page, page.costs.startBlocking) + page.scripts.compileMs(group),
          () => {
            page.scripts.evaluateNow(group, cause, (by) => this.resume(by));
          },
        );
      });
    });
  }

  private resume(by: Cause): void {
    this.parsing = 'ready';
    if (!this.bodyInserted && (!this.lastBlocker || by.at >= this.lastBlocker.at)) this.lastBlocker = by;
    this.parse();
  }

  private insertBody(): void {
    if (this.bodyInserted) return;
    this.bodyInserted = true;
    this.page.moments.bodyInserted = this.page.clock.now;
    this.page.fetcher.release();
    this.page.renderer.tryPaint();
  }

  private ended(): void {
    this.parsing = 'ended';
    this.insertBody();
    this.page.moments.domInteractive = this.page.clock.now;
    this.runDeferred();
  }

  /** Deferred and module scripts run in document order, each once it and the styles are there. */
  private runDeferred(): void {
    const { page } = this;
    const group = this.deferred.shift();
    if (group === undefined) {
      page.clock.at(page.clock.now + browserMs(page, 1.5), () => {
        page.moments.domContentLoaded = page.clock.now;
        this.contentLoaded = true;
        this.tryLoad();
      });
      return;
    }
    page.scripts.whenReady(group, (arrival) => {
      this.whenStyled(() => {
        const cause = this.lastBlocker && this.lastBlocker.at > arrival.at ? this.lastBlocker : arrival;
        page.clock.at(page.clock.now + browserMs(page, page.costs.startDefer) + page.scripts.compileMs(group), () => {
          page.scripts.evaluateNow(group, cause, () => this.runDeferred());
        });
      });
    });
  }

  /** Makes the load event wait for these files: until scripts have run, anything else is there (HTML, “the end”). */
  holdLoad(resources: number[]): void {
    const { fetcher, scripts, program } = this.page;
    for (const r of resources) {
      const runs = program.resources[r].type === 'script';
      if (this.holdsLoad.has(r) || fetcher.requestOf(r) < 0 || (runs ? scripts.hasRun(r) : fetcher.hasArrived(r)))
        continue;
      this.holdsLoad.add(r);
      const over = () => {
        this.holdsLoad.delete(r);
        this.tryLoad();
      };
      if (runs) scripts.onEvaluated(r, over);
      else fetcher.onArrival(r, over);
    }
  }

  private tryLoad(): void {
    const { page } = this;
    if (!this.contentLoaded || this.holdsLoad.size > 0 || Number.isFinite(page.moments.load)) return;
    page.clock.at(page.clock.now + browserMs(page, 1.5), () => {
      if (Number.isFinite(page.moments.load) || this.holdsLoad.size > 0) return;
      page.moments.load = page.clock.now;
      page.triggers.loaded();
    });
  }
}

/** The request of a navigation, before anything has come of it. */
function navigation(address: string): RequestRecord {
  return {
    resource: -1,
    address,
    name: 'document',
    origin: '',
    type: 'document',
    role: 'content',
    hop: 0,
    cause: { kind: 'navigation', what: 'navigation', at: 0, request: -1, task: -1 },
    discovered: 0,
    queued: 0,
    released: 0,
    sent: 0,
    reached: 0,
    served: 0,
    firstByte: 0,
    end: 0,
    bytes: 0,
    priority: 0,
    connection: 0,
    hint: false,
    pieces: [],
    evaluated: Number.NaN,
  };
}

/** What the server hands over of a document, piece by piece, each so long after the request was served. */
function piecesOf({ flush, bytes }: DocumentLoad): { bytes: number; atMs: number }[] {
  const cuts = flush.length > 0 ? flush : [{ upTo: bytes, atMs: 0 }];
  const pieces = cuts.map((cut, i) => ({ bytes: cut.upTo - (i > 0 ? cuts[i - 1].upTo : 0), atMs: cut.atMs }));
  const last = cuts[cuts.length - 1];
  if (bytes > last.upTo) pieces.push({ bytes: bytes - last.upTo, atMs: last.atMs });
  return pieces;
}
