import type { Clock } from './clock.ts';
import type { Link } from './conditions.ts';
import type { Pipe } from './pipe.ts';
import type { Stream } from './stream.ts';

const SEGMENT = 1448;
const PACKET_OVERHEAD = 52;
const INITIAL_WINDOW = 10;
const ACK = 52;
const ROUND_SAMPLES = 8;

/** Handshake sizes on the link, as counted in recorded loads. */
const HELLO_UP = [1500, 552];
const HELLO_DOWN = 837;

/** A record on its way out; `from` is when its first bit reaches the client, −1 before that is known. */
interface OutRecord {
  stream: Stream;
  bytes: number;
  left: number;
  from: number;
}

/**
 * One TCP (or QUIC) connection over the shared link. The server's window opens by a packet per acknowledgement in
 * slow start, which ends when even the first packets of a round find a queue (hybrid slow start, as Linux does it);
 * from then on the window grows slowly. Requests travel as packets
 * too, and the client's window starts at ten of them.
 */
export class Connection {
  state: 'new' | 'opening' | 'open' = 'new';
  /** For protocols that carry one answer at a time. */
  busy = false;
  private window = INITIAL_WINDOW;
  private slowStart = true;
  /** Packets sent so far, and the round of slow start that is being acknowledged: its end and its shortest queue. */
  private sentPackets = 0;
  private ackedPackets = 0;
  private round = { end: 0, samples: 0, shortest: Number.POSITIVE_INFINITY };
  private inFlight = 0;
  private lastSent = 0;
  private streams: Stream[] = [];
  private record: OutRecord | null = null;
  private upWindow = INITIAL_WINDOW;
  private upInFlight = 0;
  private readonly upQueue: { bytes: number; arrived: () => void }[] = [];
  private readonly waiting: (() => void)[] = [];

  constructor(
    readonly id: number,
    private readonly clock: Clock,
    private readonly up: Pipe,
    private readonly down: Pipe,
    private readonly link: Link,
  ) {}

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
    const { protocol, tls } = this.link;
    const hello = (again: number) => {
      for (const bytes of HELLO_UP.slice(0, -1)) this.up.send(this.clock.now, bytes);
      this.roundTrip(HELLO_UP[HELLO_UP.length - 1], HELLO_DOWN, () => (again > 0 ? hello(again - 1) : this.opened()));
    };
    if (protocol === 'h3') hello(0);
    else this.roundTrip(60, 60, () => (tls === 'none' ? this.opened() : hello(tls === '1.2' ? 1 : 0)));
  }

  private roundTrip(upBytes: number, downBytes: number, then: () => void): void {
    this.clock.at(this.up.send(this.clock.now, upBytes), () => {
      this.clock.at(this.down.send(this.clock.now, downBytes), then);
    });
  }

  private opened(): void {
    this.state = 'open';
    for (const then of this.waiting.splice(0)) then();
  }

  /** Sends a request of so many bytes; calls back when it has arrived at the server. */
  request(bytes: number, arrived: () => void): void {
    this.upQueue.push({ bytes, arrived });
    this.pumpUp();
  }

  private pumpUp(): void {
    while (this.upInFlight < this.upWindow && this.upQueue.length > 0) {
      const { bytes, arrived } = this.upQueue.shift()!;
      this.upInFlight++;
      const at = this.up.send(this.clock.now, bytes + PACKET_OVERHEAD);
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
    }
    this.pump();
  }

  private pump(): void {
    const { clock, down } = this;
    if (this.inFlight === 0 && clock.now - this.lastSent > 200 + this.link.rttMs) {
      this.window = Math.min(this.window, INITIAL_WINDOW);
      this.slowStart = true;
    }
    while (this.inFlight < Math.floor(this.window)) {
      const begun: OutRecord[] = [];
      const done: OutRecord[] = [];
      let payload = 0;
      while (payload < SEGMENT) {
        this.record ??= this.nextRecord();
        if (!this.record) break;
        const take = Math.min(SEGMENT - payload, this.record.left);
        payload += take;
        this.record.left -= take;
        if (this.record.from < 0) begun.push(this.record);
        if (this.record.left > 0) break;
        done.push(this.record);
        this.record = null;
      }
      if (payload === 0) return;
      const wire = payload + PACKET_OVERHEAD;
      const arrival = down.send(clock.now, wire);
      const queued = arrival - down.delayMs - down.serialMs(wire) - clock.now;
      for (const record of begun) record.from = arrival - down.serialMs(payload);
      for (const { stream, bytes, from } of done) clock.at(arrival, () => stream.onRecord(bytes, from));
      this.inFlight++;
      this.sentPackets++;
      this.lastSent = clock.now;
      clock.at(arrival + this.up.delayMs + this.up.serialMs(ACK), () => this.acknowledged(queued));
    }
  }

  private acknowledged(queued: number): void {
    this.inFlight--;
    this.ackedPackets++;
    if (this.slowStart) {
      this.window += 1;
      if (this.window >= 16 && this.queueStands(queued)) this.slowStart = false;
    } else {
      this.window += 0.5 / this.window;
    }
    this.pump();
  }

  /** Whether the first packets of a round, which no burst of its own delays, have found a queue. */
  private queueStands(queued: number): boolean {
    const { round } = this;
    if (this.ackedPackets > round.end) {
      round.end = this.sentPackets;
      round.samples = 0;
      round.shortest = Number.POSITIVE_INFINITY;
    }
    if (round.samples >= ROUND_SAMPLES) return false;
    round.samples++;
    round.shortest = Math.min(round.shortest, queued);
    const limit = Math.min(16, Math.max(4, this.link.rttMs / 8));
    return round.samples === ROUND_SAMPLES && round.shortest > limit;
  }

  /** What the server writes next: in order of readiness (near-simultaneous ones by priority), or by urgency. */
  private nextRecord(): OutRecord | null {
    let best: Stream | null = null;
    for (const stream of this.streams) {
      if (stream.waiting && (best === null || this.precedes(stream, best))) best = stream;
    }
    if (best === null) {
      this.streams = [];
      return null;
    }
    const bytes = best.takeRecord();
    if (!best.waiting) this.streams = this.streams.filter((s) => s !== best);
    else if (best.incremental) this.streams = [...this.streams.filter((s) => s !== best), best];
    return { stream: best, bytes, left: bytes, from: -1 };
  }

  private precedes(a: Stream, b: Stream): boolean {
    if (this.link.serverScheduling === 'urgency') return a.priority < b.priority;
    if (Math.abs(a.readyAt - b.readyAt) >= 1) return a.readyAt < b.readyAt;
    return a.priority < b.priority;
  }
}
