import type { LinkHint, MarkupItem } from '../load/types.ts';
import { type Ask, withAttribute } from './fetcher.ts';
import { browserMs, byRequest, byTask, type Run } from './run.ts';
import type { Cause, Priority, RequestRecord } from './types.ts';

const FIRST_IMAGES = 5;

/** The document: streaming in, the look-ahead scanner, the parser with what blocks it, and the load event. */
export class Parser {
  bodyInserted = false;
  /** What was the last to stop blocking rendering. */
  lastBlocker: Cause | null = null;
  private document = -1;
  private seenBytes = 0;
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

  constructor(private readonly run: Run) {}

  get renderBlocked(): boolean {
    return this.pendingStyles.size > 0;
  }

  /** Sends the navigation request. */
  start(): void {
    const { run } = this;
    const { document } = run.program;
    const record: RequestRecord = {
      resource: -1,
      address: document.address,
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
    this.document = run.fetcher.addDocument(record);
    const cuts = document.flush.length > 0 ? document.flush : [{ upTo: document.bytes, atMs: 0 }];
    const pieces = cuts.map((cut, i) => ({ bytes: cut.upTo - (i > 0 ? cuts[i - 1].upTo : 0), atMs: cut.atMs }));
    const rest = document.bytes - cuts[cuts.length - 1].upTo;
    if (rest > 0) pieces.push({ bytes: rest, atMs: cuts[cuts.length - 1].atMs });
    if (run.documentAhead) {
      run.documentAhead(() => this.openAhead(record));
      return;
    }
    const early = document.earlyHints.length > 0 && run.conditions.link.protocol !== 'h1';
    const ask = () =>
      run.network.exchange({
        origin: '',
        anonymous: false,
        priority: 0,
        incremental: true,
        serverMs: document.serverMs,
        pieces,
        ...(early ? { early: () => this.hints(document.earlyHints, 'early hint') } : {}),
        sent: (connection) => {
          record.sent = run.clock.now;
          record.connection = connection;
        },
        reached: () => {
          record.reached = run.clock.now;
        },
        served: () => {
          record.served = run.clock.now;
        },
        progress: (total, piece) => this.arrived(record, total, piece),
      });
    run.clock.at(browserMs(run, run.costs.navigate), ask);
  }

  /** The document was fetched ahead: all of it is there, and nothing travels. */
  private openAhead(record: RequestRecord): void {
    const { run } = this;
    const { bytes } = run.program.document;
    run.clock.at(run.clock.now + browserMs(run, run.costs.navigate + run.costs.openAhead), () => {
      const { now } = run.clock;
      record.sent = record.reached = record.served = now;
      this.arrived(record, bytes, { from: now, to: now, bytes: 0 });
      record.bytes = 0;
      record.fromCache = true;
    });
  }

  private hints(hints: LinkHint[], what: string): void {
    const cause = byRequest(this.run, 'header', what, this.document);
    for (const hint of hints) this.run.triggers.link(hint, cause, 'markup');
  }

  private arrived(record: RequestRecord, total: number, piece: RequestRecord['pieces'][number]): void {
    const { run } = this;
    const first = record.pieces.length === 0;
    record.pieces.push(piece);
    record.bytes = total;
    this.seenBytes = total;
    this.complete = total >= run.program.document.bytes - 0.5;
    if (first) record.firstByte = run.clock.now;
    if (this.complete) record.end = run.clock.now;
    const cause = byRequest(run, 'parser', 'document', this.document);
    if (!first) {
      this.scan(cause);
      this.parse();
      return;
    }
    const { linkHeader } = run.program.document;
    run.clock.at(run.clock.now + browserMs(run, run.costs.discover), () => {
      for (const hint of linkHeader)
        run.triggers.link(hint, { ...cause, kind: 'header', what: 'Link header' }, 'markup');
      this.scan(cause);
      run.thread.add(
        'parse',
        'document',
        browserMs(run, run.costs.body - run.costs.discover),
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
    const { markup } = this.run.program.document;
    while (this.scanned < markup.length && (markup[this.scanned].at < this.seenBytes || this.complete)) {
      this.discover(markup[this.scanned++], cause);
    }
  }

  private discover(item: MarkupItem, cause: Cause): void {
    const { run } = this;
    const ask = (priority: Priority, more: Partial<Ask> = {}): Ask => ({ cause, from: 'markup', priority, ...more });
    switch (item.tag) {
      case 'link':
        run.triggers.link(item, cause, 'markup');
        if (item.rel === 'stylesheet') this.styleFound(item.resource);
        return;
      case 'script': {
        const late =
          this.images > 0 || run.program.document.markup.slice(0, this.scanned - 1).some((m) => m.tag === 'text');
        const normal: Priority = item.mode === 'module' ? 1 : item.mode === 'blocking' ? (late ? 2 : 1) : 3;
        const anonymous = item.mode === 'module' || item.mode === 'module-async';
        run.scripts.request(item.group, ask(withAttribute(normal, item.fetchpriority), { anonymous }));
        this.holdLoad(run.program.groups[item.group].resources);
        if (item.mode === 'async' || item.mode === 'module-async')
          run.scripts.evaluateWhenReady(item.group, run.costs.startAsync);
        return;
      }
      case 'rules':
        for (const deed of item.do) run.triggers.deed(deed, { ...cause, what: 'speculation rules' }, 'later');
        return;
      case 'img': {
        if (item.lazy && !item.inView) return;
        const normal: Priority = this.images++ < FIRST_IMAGES ? 2 : 3;
        run.fetcher.ask(item.resource, ask(withAttribute(normal, item.fetchpriority), { incremental: true }));
        if (!item.lazy) this.holdLoad([item.resource]);
      }
    }
  }

  private styleFound(resource: number): void {
    this.pendingStyles.add(resource);
    this.holdLoad([resource]);
    this.run.fetcher.onArrival(resource, (cause) => {
      this.pendingStyles.delete(resource);
      this.unblocked(cause);
      if (this.pendingStyles.size === 0) for (const then of this.styleWaiters.splice(0)) then();
    });
  }

  private unblocked(cause: Cause): void {
    if (!this.lastBlocker || cause.at >= this.lastBlocker.at) this.lastBlocker = cause;
    this.run.screen.tryPaint();
  }

  private afterStyles(then: () => void): void {
    if (this.pendingStyles.size === 0) then();
    else this.styleWaiters.push(then);
  }

  private parse(): void {
    const { markup } = this.run.program.document;
    while (this.parsing === 'ready' && this.next < markup.length) {
      const item = markup[this.next];
      if (item.at >= this.seenBytes && !this.complete) return;
      this.next++;
      this.meet(item);
    }
    if (this.parsing === 'ready' && this.complete) this.ended();
  }

  private meet(item: MarkupItem): void {
    const { run } = this;
    switch (item.tag) {
      case 'body':
        this.insertBody();
        return;
      case 'text':
        this.insertBody();
        run.screen.parsed(item.part, byRequest(run, 'parser', 'document', this.document));
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
        this.afterStyles(() => {
          const cause = this.lastBlocker ?? byRequest(run, 'parser', 'document', this.document);
          const ms = item.cpuMs * run.conditions.device.cpuFactor;
          const task = run.thread.add('evaluate', item.name, ms, cause, this.document, () => {
            const by = byTask(run, 'evaluation', item.name, task);
            for (const action of item.follow) run.triggers.start(action, by, item.name);
            this.resume(by);
          });
        });
    }
  }

  private blockOn(group: number): void {
    const { run } = this;
    this.parsing = 'blocked';
    run.scripts.whenReady(group, (arrival) => {
      this.afterStyles(() => {
        const cause = this.lastBlocker && this.lastBlocker.at > arrival.at ? this.lastBlocker : arrival;
        run.clock.at(run.clock.now + browserMs(run, run.costs.startBlocking), () => {
          run.scripts.evaluateNow(group, cause, (by) => this.resume(by));
        });
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
    this.run.moments.bodyInserted = this.run.clock.now;
    this.run.fetcher.release();
    this.run.screen.tryPaint();
  }

  private ended(): void {
    this.parsing = 'ended';
    this.insertBody();
    this.run.moments.domInteractive = this.run.clock.now;
    this.runDeferred();
  }

  /** Deferred and module scripts run in document order, each once it and the styles are there. */
  private runDeferred(): void {
    const { run } = this;
    const group = this.deferred.shift();
    if (group === undefined) {
      run.clock.at(run.clock.now + browserMs(run, 1.5), () => {
        run.moments.domContentLoaded = run.clock.now;
        this.contentLoaded = true;
        this.tryLoad();
      });
      return;
    }
    run.scripts.whenReady(group, (arrival) => {
      this.afterStyles(() => {
        const cause = this.lastBlocker && this.lastBlocker.at > arrival.at ? this.lastBlocker : arrival;
        run.clock.at(run.clock.now + browserMs(run, run.costs.startDefer), () => {
          run.scripts.evaluateNow(group, cause, () => this.runDeferred());
        });
      });
    });
  }

  /** Makes the load event wait for these files: until scripts have run, anything else is there (HTML, “the end”). */
  holdLoad(resources: number[]): void {
    const { fetcher, scripts, program } = this.run;
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
    const { run } = this;
    if (!this.contentLoaded || this.holdsLoad.size > 0 || Number.isFinite(run.moments.load)) return;
    run.clock.at(run.clock.now + browserMs(run, 1.5), () => {
      if (Number.isFinite(run.moments.load) || this.holdsLoad.size > 0) return;
      run.moments.load = run.clock.now;
      run.triggers.loaded();
    });
  }
}
