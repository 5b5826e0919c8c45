import type { LinkHint, Resource, ResourceType } from '../load/types.ts';
import { endAfter, type Instant, reach } from './instants.ts';
import type { Exchange } from './network.ts';
import { backgroundMs, byRequest, type PageContext } from './page-context.ts';
import type { Fetching, FetchRequest, Parsing } from './pieces.ts';
import type { Cause, RequestRecord } from './types.ts';

interface Flight {
  record: RequestRecord;
  /** The last of its instants that has come. */
  come: Instant;
  exchange: Omit<Exchange, 'sent' | 'reached' | 'served' | 'progress'> | null;
  usedAt: 'start' | 'later' | null;
  hintedBy: LinkHint | null;
  waiting: ((cause: Cause) => void)[];
  arrived: Cause | null;
  /** What was asked for isn't there (any more). */
  failed: boolean;
  /** Fetched by a hint that can't serve anybody who needs the file. */
  idle: boolean;
}

/** Requests of the page: who asks first, what is held back, what is answered from the cache. */
export class Fetcher implements Fetching {
  readonly requests: RequestRecord[] = [];
  private readonly flights: Flight[] = [];
  private readonly byResource = new Map<number, number>();
  /** Who waits for files that nobody has asked for yet. */
  private readonly unasked = new Map<number, ((cause: Cause) => void)[]>();
  private readonly failureWaiters = new Map<number, ((cause: Cause) => void)[]>();
  private throttled: number[] = [];
  private flying = new Set<number>();
  private batch: { index: number; from: FetchRequest['from'] }[] = [];
  /** Requests on their way to the network. */
  private dispatching = 0;

  constructor(private readonly page: PageContext & { parser: Pick<Parsing, 'bodyInserted'> }) {}

  /** Index of the request for a resource; −1 while nobody has asked for it. */
  requestOf(resource: number): number {
    return this.byResource.get(resource) ?? -1;
  }

  /** Resource of a document that the page fetched ahead; −1 where it did not. */
  documentAhead(address: string): number {
    const { resources } = this.page.program;
    return resources.findIndex((r, at) => r.document === true && r.address === address && this.requestOf(at) >= 0);
  }

  /** Asks for a resource; a request in flight or answered is joined if it serves. Gives the index of its request. */
  request(resource: number, how: FetchRequest): number {
    const item = this.page.program.resources[resource];
    const existing = this.byResource.get(resource);
    if (existing !== undefined && !this.isSpent(existing, how.maxAgeMs)) {
      const flight = this.flights[existing];
      const served = how.hint || flight.usedAt !== null || this.serves(flight.hintedBy, item, how.anonymous ?? false);
      if (!served) return this.askAgain(existing, how);
      if (!how.hint) flight.usedAt ??= how.moment ?? 'start';
      if (!how.hint && !how.early) delete flight.record.early;
      return existing;
    }
    const index = this.begin(item, resource, how);
    this.byResource.set(resource, index);
    return index;
  }

  /** Whether an answer can't be used again: it failed, or is too old. */
  private isSpent(index: number, maxAgeMs = Number.POSITIVE_INFINITY): boolean {
    const { arrived, failed } = this.flights[index];
    return failed || (arrived !== null && this.page.clock.now - arrived.at > maxAgeMs);
  }

  /**
   * Whether what a hint brought can be used by who asks now. A preload serves only requests of the same kind and mode, a
   * prefetch fills nothing but the browser's cache; where that keeps the file for good, the difference is a read from disk.
   */
  private serves(hintedBy: LinkHint | null, { cache, type }: Resource, anonymous: boolean): boolean {
    if (!hintedBy || hintedBy.keptByApp || cache === 'immutable') return true;
    if (hintedBy.rel === 'prefetch') return false;
    if (hintedBy.rel === 'modulepreload') return type === 'script' && anonymous;
    return hintedBy.as === type && (hintedBy.crossorigin ?? false) === anonymous;
  }

  /** Asks once more, when the answer that doesn't serve is there: the browser's cache lets one write a file at a time. */
  private askAgain(known: number, how: FetchRequest): number {
    const before = this.flights[known];
    const { resource } = before.record;
    const item = this.page.program.resources[resource];
    // What the cache kept is only asked about, so that it was of use after all.
    if (item.cache === 'revalidate') before.usedAt = how.moment ?? 'start';
    const waiting = before.waiting.splice(0);
    const index = this.begin(item, resource, how, before.arrived ? undefined : known);
    this.flights[index].waiting.push(...waiting);
    this.byResource.set(resource, index);
    return index;
  }

  /** Calls back if a resource can't be loaded, from now on. */
  onFailure(resource: number, then: (cause: Cause) => void): void {
    this.failureWaiters.set(resource, [...(this.failureWaiters.get(resource) ?? []), then]);
  }

  /** Calls back when the answer to a resource is complete (at once if it is), whoever asks for it and whenever. */
  onArrival(resource: number, then: (cause: Cause) => void): void {
    const flight = this.flights[this.requestOf(resource)];
    if (!flight || flight.failed || flight.idle)
      this.unasked.set(resource, [...(this.unasked.get(resource) ?? []), then]);
    else if (flight.arrived) then(flight.arrived);
    else flight.waiting.push(then);
  }

  hasArrived(resource: number): boolean {
    const at = this.requestOf(resource);
    return at >= 0 && this.flights[at].arrived !== null && !this.flights[at].idle;
  }

  get quiet(): boolean {
    return this.flying.size === 0 && this.throttled.length === 0;
  }

  /** Registers the document's own request, which the parser drives. */
  addDocument(record: RequestRecord): number {
    const flight: Flight = {
      record,
      come: 'discovered',
      exchange: null,
      usedAt: 'start',
      hintedBy: null,
      waiting: [],
      arrived: null,
      failed: false,
      idle: false,
    };
    this.requests.push(record);
    return this.flights.push(flight) - 1;
  }

  /** Lets go what the still blocking head held back, as far as that is over. */
  release(): void {
    const still: number[] = [];
    for (const index of this.throttled) if (!this.tryRelease(index)) still.push(index);
    this.throttled = still;
  }

  /** The page is left: what isn't there yet never will be. */
  cutOff(): void {
    for (const { record, come, arrived, failed } of this.flights) {
      if (arrived || failed || record.resource < 0) continue;
      endAfter(record, come, this.page.clock.now);
      record.cut = true;
    }
  }

  /** Fills in the roles, once it is known what was used. */
  settleRoles(): void {
    for (const flight of this.flights) {
      const { record } = flight;
      const purpose = record.resource < 0 ? 'content' : this.page.program.resources[record.resource].purpose;
      if (flight.usedAt === null) record.role = flight.hintedBy?.rel === 'prefetch' ? 'in case' : 'wasted';
      else if (record.hint) record.role = 'hinted';
      else if (purpose === 'content') record.role = 'content';
      else if (purpose === 'other script') record.role = flight.usedAt === 'later' ? 'on demand' : 'needed';
      else record.role = purpose === 'start' ? 'needed' : 'on demand';
    }
  }

  private begin(item: Resource, resource: number, how: FetchRequest, after?: number): number {
    const { clock } = this.page;
    const parent = this.hopOf(how.cause);
    const record: RequestRecord = {
      resource,
      address: item.address,
      name: item.name,
      origin: item.origin,
      type: item.type,
      role: 'needed',
      hop: parent + 1,
      cause: how.cause,
      discovered: clock.now,
      queued: clock.now,
      released: clock.now,
      sent: clock.now,
      reached: clock.now,
      served: clock.now,
      firstByte: clock.now,
      end: clock.now,
      bytes: 0,
      priority: how.priority,
      connection: -1,
      hint: how.hint?.chosen ?? false,
      pieces: [],
      evaluated: Number.NaN,
      ...(how.early ? { early: true } : {}),
      ...(item.unknownSize ? { unknownSize: true } : {}),
    };
    const { hint } = how;
    const idle = hint !== undefined && !USUAL_MODES[item.type].some((mode) => this.serves(hint, item, mode));
    const flight: Flight = {
      record,
      come: 'discovered',
      exchange: null,
      usedAt: how.hint ? null : (how.moment ?? 'start'),
      hintedBy: how.hint ?? null,
      waiting: idle ? [] : (this.unasked.get(resource) ?? []),
      arrived: null,
      failed: false,
      idle,
    };
    if (!idle) this.unasked.delete(resource);
    const index = this.requests.push(record) - 1;
    this.flights.push(flight);
    if (after === undefined) this.dispatchOf(index, item, how);
    else this.flights[after].waiting.push(() => this.dispatchOf(index, item, how));
    return index;
  }

  /** Answers from what the browser has kept, or gets it on its way. */
  private dispatchOf(index: number, item: Resource, how: FetchRequest): void {
    const { clock } = this.page;
    const flight = this.flights[index];
    const kept = this.page.httpCache.of(item);
    if (kept === 'fresh') {
      flight.record.fromCache = true;
      const { diskRead, diskReadPerKb } = this.page.costs;
      const ms = diskRead + (diskReadPerKb * item.bytes) / 1000;
      clock.at(clock.now + backgroundMs(this.page, ms), () => this.finish(index));
      return;
    }
    const gone = this.page.outdated && item.changes === true && kept === 'nothing';
    flight.failed = gone;
    flight.exchange = {
      origin: item.origin,
      anonymous: how.anonymous ?? false,
      priority: how.priority,
      incremental: how.incremental ?? false,
      serverMs: item.serverMs,
      pieces: [{ bytes: kept === 'stale' || gone ? 0 : item.bytes, atMs: 0 }],
    };
    this.batch.push({ index, from: how.from });
    if (this.batch.length === 1) clock.at(clock.now, () => this.dispatch());
  }

  /**
   * Hands what was asked for at one instant to the network, the more urgent first. Each of a burst takes a little
   * longer than the one before, up to a limit, as recorded. What isn't urgent but was found first is on its way before
   * the others are known, though (docs/SIMULATOR.md, "A patient request that is found first").
   */
  private dispatch(): void {
    const { clock, costs } = this.page;
    const found = this.batch.splice(0);
    const urgency = ({ index }: { index: number }) => this.flights[index].record.priority;
    const ahead = urgency(found[0]) === 3 ? found.splice(0, 1) : [];
    found.sort((a, b) => urgency(a) - urgency(b));
    for (const { index, from } of [...ahead, ...found]) {
      const usual = { markup: costs.dispatchMarkup, script: costs.dispatchScript, font: costs.dispatchFont }[from];
      const ms = usual + Math.min(this.dispatching * costs.burstStep, costs.burstMost);
      this.dispatching++;
      clock.at(clock.now + backgroundMs(this.page, ms), () => {
        this.dispatching--;
        this.come(index, 'queued');
        if (!this.tryRelease(index)) this.throttled.push(index);
      });
    }
  }

  /**
   * While the head still blocks, a request of medium urgency waits while two of its kind are in flight, and a low
   * one while two of any kind are. Recorded loads show this rule; see docs/SIMULATOR.md.
   */
  private tryRelease(index: number): boolean {
    const { priority } = this.flights[index].record;
    if (!this.page.parser.bodyInserted) {
      if (priority === 2) {
        let medium = 0;
        for (const i of this.flying) if (this.flights[i].record.priority === 2) medium++;
        if (medium >= 2) return false;
      }
      if (priority >= 3 && this.flying.size >= 2) return false;
    }
    this.send(index);
    return true;
  }

  private send(index: number): void {
    const { network } = this.page;
    const { record, exchange } = this.flights[index];
    this.come(index, 'released');
    this.flying.add(index);
    const size = exchange!.pieces[0].bytes;
    network.exchange({
      ...exchange!,
      sent: (connection) => {
        this.come(index, 'sent');
        record.connection = connection;
      },
      reached: () => this.come(index, 'reached'),
      served: () => this.come(index, 'served'),
      progress: (total, piece) => {
        if (record.pieces.length === 0) this.come(index, 'firstByte');
        record.pieces.push(piece);
        record.bytes = total;
        if (total >= size - 0.5) this.finish(index);
      },
    });
  }

  private come(index: number, instant: Instant): void {
    const flight = this.flights[index];
    flight.come = instant;
    reach(flight.record, instant, this.page.clock.now);
  }

  private finish(index: number): void {
    const flight = this.flights[index];
    const { record } = flight;
    if (record.pieces.length === 0) this.come(index, 'queued');
    this.come(index, 'end');
    this.flying.delete(index);
    if (flight.failed) {
      this.fail(flight, index);
      return;
    }
    if (record.resource >= 0) this.page.httpCache.add(this.page.program.resources[record.resource]);
    flight.arrived = byRequest(this.page, 'arrival', `${record.name} arrived`, index);
    for (const then of flight.waiting.splice(0)) then(flight.arrived);
    this.release();
  }

  /** The answer says that the file is gone. Who waits for it may be served by a later request. */
  private fail(flight: Flight, index: number): void {
    const { resource, name } = flight.record;
    flight.record.gone = true;
    this.unasked.set(resource, [...(this.unasked.get(resource) ?? []), ...flight.waiting.splice(0)]);
    const cause = byRequest(this.page, 'arrival', `${name} is gone`, index);
    for (const then of this.failureWaiters.get(resource)?.splice(0) ?? []) then(cause);
    this.release();
  }

  /** Depth in the chain of discoveries: that of the request whose progress was the cause. */
  private hopOf(cause: Cause): number {
    if (cause.request >= 0) return this.requests[cause.request].hop;
    if (cause.task < 0) return -1;
    const task = this.page.mainThread.tasks[cause.task];
    return task.request >= 0 ? this.requests[task.request].hop : this.hopOf(task.cause);
  }
}

/** Whether files of a type are asked for without credentials (and so by CORS); scripts are either way. */
const USUAL_MODES: Record<ResourceType, readonly boolean[]> = {
  script: [true, false],
  style: [false],
  image: [false],
  font: [true],
  fetch: [true],
};
