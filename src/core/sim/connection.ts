import type { Link, Sending } from './conditions.ts';
import type { EventQueue } from './event-queue.ts';
import type { LinkQueue } from './link-queue.ts';
import type { Stream } from './stream.ts';
import { type Load, TcpSender } from './tcp.ts';
import { type Spoken, type Transport, transportOf } from './transport.ts';

/** Handshake sizes on the link, as counted in recorded loads. */
const HELLO_UP = [1500, 552];
const HELLO_DOWN = 837;
/** QUIC fills its first packets up (RFC 9000, 14.1). */
const QUIC_HELLO_DOWN = 2500;
/** What TLS takes besides its round trip, at both ends: recorded loads are 1 to 3 ms above what travels. */
const SECURE_MS = 2;
/** A lost answer to the first packet is sent again after a second (RFC 6298, 2.1), one of the handshake after a round trip and this long. */
const CONNECT_AGAIN_MS = 1000;
const FLIGHT_AGAIN_MS = 200;
/** What the server sends by itself once it is connected: two session tickets, and settings on HTTP/2 (payloads). */
const FINISHED = 132;
const TICKETS = [614, 574];
const SETTINGS = [31, 24];
/** The same over QUIC, with what it sends to learn how large packets may be: recorded documents come later by what 4 kB take on the link. */
const QUIC_GREETING = [1200, 1200, 1200, 500];

/** Answers that become ready within this time are written together. */
const TOGETHER_MS = 1;
/** Packets of one answer that are simulated one by one. */
const MOST_PACKETS = 50_000;
const FLUSH_MS = 1;

/** A record on its way out; `from` is when its first bit reaches the client, −1 before that is known. */
interface OutRecord {
  parts: { stream: Stream; bytes: number }[];
  left: number;
  from: number;
}

/**
 * One TCP (or QUIC) connection over the shared link: its handshake, requests up (packets too, with a window that begins
 * at ten), and the server's answers down, record by record.
 */
export class Connection {
  state: 'new' | 'opening' | 'open' = 'new';
  /** For protocols that carry one answer at a time. */
  busy = false;
  /** The server has answered for the first time: what is left of connecting is TLS. */
  reached = false;
  private readonly server: TcpSender;
  private begun: OutRecord[] = [];
  private greeting: number[] = [];
  /** Packets that are simulated as one: more than one only for enormous answers. */
  private bundle = 1;
  private streams: Stream[] = [];
  private record: OutRecord | null = null;
  private upWindow: number;
  private readonly transport: Transport;
  /** How the server sends over it. */
  readonly sending: Sending;
  private upInFlight = 0;
  private gathers = false;
  private readonly upQueue: { bytes: number; arrived: () => void }[] = [];
  private readonly waiting: (() => void)[] = [];

  constructor(
    readonly id: number,
    private readonly clock: EventQueue,
    private readonly up: LinkQueue,
    private readonly down: LinkQueue,
    private readonly link: Link,
    readonly protocol: Spoken,
  ) {
    this.transport = transportOf(protocol);
    this.sending = (protocol === 'h3' && link.overHttp3) || link;
    this.upWindow = this.transport.window;
    this.server = new TcpSender(
      clock,
      down,
      up,
      link.rttMs,
      this.transport,
      () => this.nextLoad(),
      (arrival, bytes) => this.leaves(arrival, bytes),
    );
  }

  /** Opens it if it isn't, and calls back once requests can leave. */
  whenOpen(then: () => void): void {
    if (this.state === 'open') then();
    else {
      this.waiting.push(then);
      if (this.state === 'new') this.open();
    }
  }

  private open(): void {
    this.state = 'opening';
    const { protocol } = this;
    const { tls } = this.link;
    const helloDown = protocol === 'h3' ? QUIC_HELLO_DOWN : HELLO_DOWN;
    const hello = (again: number) => {
      for (const bytes of HELLO_UP.slice(0, -1)) this.up.send(this.clock.now, bytes);
      this.roundTrip(HELLO_UP[HELLO_UP.length - 1], helloDown, this.link.rttMs + FLIGHT_AGAIN_MS, () =>
        again > 0 ? hello(again - 1) : this.clock.at(this.clock.now + SECURE_MS, () => this.opened()),
      );
    };
    if (protocol === 'h3') hello(0);
    else
      this.roundTrip(60, 60, CONNECT_AGAIN_MS, () => {
        this.reached = true;
        if (tls === 'none') this.opened();
        else hello(tls === '1.2' ? 1 : 0);
      });
  }

  /** One question of the handshake and its answer, which is sent again `againMs` later where the link loses it. */
  private roundTrip(upBytes: number, downBytes: number, againMs: number, then: () => void): void {
    const { clock, down } = this;
    const answer = () => {
      const arrival = down.carry(clock.now, downBytes);
      if (arrival === null) clock.at(clock.now + againMs, answer);
      else clock.at(arrival, then);
    };
    clock.at(this.up.send(clock.now, upBytes), answer);
  }

  private opened(): void {
    const { protocol } = this;
    const { tls } = this.link;
    this.state = 'open';
    this.greeting =
      protocol === 'h3'
        ? [...QUIC_GREETING]
        : [...(tls === 'none' ? [] : TICKETS), ...(protocol === 'h1' ? [] : SETTINGS)];
    this.clock.at(this.up.send(this.clock.now, FINISHED), () => {
      this.server.widen(this.greeting.length);
      this.server.pump();
    });
    // Requests that have waited for the connection leave in one packet: recorded ones reach the server at the same instant.
    this.gathers = true;
    for (const then of this.waiting.splice(0)) then();
    this.gathers = false;
    this.pumpUp();
  }

  /** Sends a request of so many bytes; calls back when it has arrived at the server. */
  request(bytes: number, arrived: () => void): void {
    const last = this.gathers ? this.upQueue.at(-1) : undefined;
    if (last && last.bytes + bytes <= this.transport.segment) {
      const { arrived: before } = last;
      last.bytes += bytes;
      last.arrived = () => {
        before();
        arrived();
      };
    } else this.upQueue.push({ bytes, arrived });
    if (!this.gathers) this.pumpUp();
  }

  private pumpUp(): void {
    while (this.upInFlight < this.upWindow && this.upQueue.length > 0) {
      const { bytes, arrived } = this.upQueue.shift()!;
      this.upInFlight++;
      const at = this.up.send(this.clock.now, bytes + this.transport.overhead);
      this.server.acknowledgeAlong();
      this.clock.at(at, arrived);
      this.clock.at(at + this.down.delayMs, () => {
        this.upInFlight--;
        this.upWindow++;
        this.pumpUp();
      });
    }
  }

  /** Tells that a stream has something to send. */
  respond(stream: Stream): void {
    if (!this.streams.includes(stream)) {
      stream.readyAt = this.clock.now;
      this.streams.push(stream);
      this.bundle = Math.max(1, Math.floor(stream.largest / (this.transport.segment * MOST_PACKETS)));
    }
    // What becomes ready meanwhile goes into the same record.
    this.clock.at(this.clock.now + FLUSH_MS, () => this.server.pump());
  }

  /** The next packet: whole records where they fit, in the order in which the server writes them. */
  private nextLoad(): Load | null {
    const greeting = this.greeting.shift();
    if (greeting !== undefined) return { bytes: greeting, arrived: () => {} };
    const begun: OutRecord[] = [];
    const done: OutRecord[] = [];
    let payload = 0;
    const most = this.transport.segment * this.bundle;
    while (payload < most) {
      this.record ??= this.nextRecord();
      if (!this.record) break;
      const take = Math.min(most - payload, this.record.left);
      payload += take;
      this.record.left -= take;
      if (this.record.from < 0) begun.push(this.record);
      if (this.record.left > 0) break;
      done.push(this.record);
      this.record = null;
    }
    if (payload === 0) return null;
    this.begun = begun;
    return {
      bytes: payload,
      arrived: () => {
        for (const { parts, from } of done) for (const { stream, bytes } of parts) stream.onRecord(bytes, from);
      },
    };
  }

  /** A record's first bit reaches the client with the packet that it begins in. */
  private leaves(arrival: number, bytes: number): void {
    const from = Number.isNaN(arrival) ? this.clock.now + this.down.delayMs : arrival - this.down.serialMs(bytes);
    for (const record of this.begun) record.from = from;
  }

  /**
   * The record that the server writes next: in order of readiness (near-simultaneous ones by priority), or by urgency.
   * Answers that became ready together share records; recorded loads show small ones appear in groups of 16 kB.
   */
  private nextRecord(): OutRecord | null {
    const first = this.firstWaiting(() => true);
    if (first === null) {
      this.streams = [];
      return null;
    }
    const { record, readyAt } = first;
    const parts = [{ stream: first, bytes: first.take(record) }];
    let left = parts[0].bytes;
    this.settle(first);
    while (this.sending.serverScheduling === 'fifo' && left < record) {
      const next = this.firstWaiting((s) => s !== first && Math.abs(s.readyAt - readyAt) < TOGETHER_MS);
      if (next === null) break;
      const bytes = next.take(record - left);
      parts.push({ stream: next, bytes });
      left += bytes;
      this.settle(next);
    }
    return { parts, left, from: -1 };
  }

  private firstWaiting(counts: (stream: Stream) => boolean): Stream | null {
    let best: Stream | null = null;
    for (const stream of this.streams) {
      if (stream.waiting && counts(stream) && (best === null || this.precedes(stream, best))) best = stream;
    }
    return best;
  }

  /** A stream that has had its turn goes, or stands behind those of its kind. */
  private settle(stream: Stream): void {
    if (stream.waiting && !this.takesTurns(stream)) return;
    this.streams.splice(this.streams.indexOf(stream), 1);
    if (stream.waiting) this.streams.push(stream);
  }

  /** Whether others of its kind come before its next piece. Over HTTP/2 equal ones that became ready together do (fact 19). */
  private takesTurns(stream: Stream): boolean {
    if (stream.incremental || this.sending.serverScheduling === 'shared') return true;
    if (this.sending.serverScheduling === 'urgency') return false;
    return this.streams.some(
      (s) =>
        s !== stream &&
        s.waiting &&
        s.priority === stream.priority &&
        Math.abs(s.readyAt - stream.readyAt) < TOGETHER_MS,
    );
  }

  private precedes(a: Stream, b: Stream): boolean {
    if (this.sending.serverScheduling === 'shared') return false;
    if (this.sending.serverScheduling === 'urgency') return a.priority < b.priority;
    if (Math.abs(a.readyAt - b.readyAt) >= TOGETHER_MS) return a.readyAt < b.readyAt;
    return a.priority < b.priority;
  }
}
