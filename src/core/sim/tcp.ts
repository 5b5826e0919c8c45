import { Congestion } from './congestion.ts';
import type { EventQueue } from './event-queue.ts';
import type { LinkQueue } from './link-queue.ts';
import type { Transport } from './transport.ts';

const ACK = 52;
/** A receiver acknowledges every second packet. */
const ACK_EVERY = 2;
/** What a lone packet is given besides two round trips before it is probed for. */
const LONE_MS = 200;
/** Of a connection that paces: packets that leave at once before that, and by how much faster than the window alone would. */
const BURST = 10;
const PACE = 1.25;
/** From so many overtakers on, a packet that was overtaken is lost at once; before, only after a while (RFC 8985). */
const OVERTAKERS = 3;

/** What one packet carries: its payload, and what to do once it and all before it have arrived. */
export interface Load {
  bytes: number;
  arrived: () => void;
}

interface Packet {
  load: Load;
  sentAt: number;
  /** Order of sending, retransmissions included. */
  turn: number;
  again: boolean;
  state: 'flying' | 'sacked' | 'lost' | 'acked';
}

const ACKED: Packet = {
  load: { bytes: 0, arrived: () => {} },
  sentAt: 0,
  turn: -1,
  again: false,
  state: 'acked',
};

/**
 * One direction of a TCP connection, packet by packet: congestion window (slow start with hybrid exit, cubic), delayed
 * acknowledgements, delivery in order, packets dropped at a full queue found by those that overtake them, by a probe or
 * by a timeout. After Linux's implementation, whose behaviour the recorded loads show.
 */
export class TcpSender {
  private readonly packets: Packet[] = [];
  private readonly congestion: Congestion;
  /** When the next packet may leave, where they are paced. */
  private paceAt = 0;
  private paceWaits = false;
  /** First packet that isn't acknowledged, and the first that the receiver still waits for. */
  private una = 0;
  private expected = 0;
  private readonly received: boolean[] = [];
  private unacknowledged = 0;
  private ackDue = 0;
  private ackWaits = false;
  private highestSacked = -1;
  private turns = 0;
  private flying = 0;
  private lost: number[] = [];
  private recoverUntil = -1;
  private due = 0;
  private waits = false;
  private probed = false;
  /** Timeouts one after the other without news: each doubles the next (RFC 6298, 5.5). */
  private timeouts = 0;
  /** Of the packets that have arrived, the one sent last. */
  private newest = { turn: -1, rtt: 0 };
  private patienceTimer = 0;
  private lastSent = Number.NEGATIVE_INFINITY;

  constructor(
    private readonly clock: EventQueue,
    private readonly down: LinkQueue,
    private readonly up: LinkQueue,
    rttMs: number,
    private readonly transport: Transport,
    /** Gives the next packet's load; null when there is nothing to send. */
    private readonly next: () => Load | null,
    /** Called when a packet of fresh data leaves, with the instant at which it will arrive. */
    private readonly left: (arrival: number, bytes: number) => void,
    /** So many packets at the beginning are acknowledged one by one, as receivers do that don’t know yet how a connection is used. */
    private quickAcks = 0,
  ) {
    this.congestion = new Congestion(transport.window, transport.forgets);
    this.congestion.sample(rttMs);
  }

  /** Lets so many packets more fly at first. */
  widen(packets: number): void {
    this.congestion.window += packets;
  }

  /** Sends what the window allows. */
  pump(): void {
    const { clock, congestion } = this;
    if (this.flying === 0 && this.lost.length === 0) congestion.idle(clock.now - this.lastSent);
    for (;;) {
      const room = congestion.window - this.flying;
      if (room < 1) {
        congestion.used(this.flying, true, this.packets.length, this.una);
        return;
      }
      if (this.transport.paced && this.isTooEarly()) return;
      const again = this.lost.shift();
      if (again !== undefined) {
        if (this.packets[again].state === 'lost') this.transmit(again, true);
        continue;
      }
      const load = this.next();
      if (!load) {
        if (this.transport.paced) this.paceAt -= congestion.rttMs / (PACE * congestion.window);
        congestion.used(this.flying, false, this.packets.length, this.una);
        return;
      }
      const at = this.packets.push({ load, sentAt: 0, turn: 0, again: false, state: 'flying' }) - 1;
      this.transmit(at, false);
    }
  }

  /** Whether pacing holds the next packet back; it goes on by itself when its time has come. */
  private isTooEarly(): boolean {
    const { clock, congestion } = this;
    const gap = congestion.rttMs / (PACE * congestion.window);
    this.paceAt = Math.max(this.paceAt, clock.now - BURST * gap);
    if (this.paceAt <= clock.now) {
      this.paceAt += gap;
      return false;
    }
    if (!this.paceWaits) {
      this.paceWaits = true;
      clock.at(this.paceAt, () => {
        this.paceWaits = false;
        this.pump();
      });
    }
    return true;
  }

  private transmit(at: number, again: boolean): void {
    const { clock } = this;
    const packet = this.packets[at];
    packet.sentAt = clock.now;
    packet.turn = this.turns++;
    packet.again = again;
    packet.state = 'flying';
    this.flying++;
    this.lastSent = clock.now;
    const { bytes } = packet.load;
    const { segment, overhead } = this.transport;
    const arrival = this.down.offer(clock.now, bytes + overhead * Math.ceil(bytes / segment));
    if (!again) this.left(arrival ?? Number.NaN, bytes);
    if (arrival !== null) clock.at(arrival, () => this.arrives(at));
    if (this.flying === 1) this.setTimer();
  }

  /** At the receiver. */
  private arrives(at: number): void {
    const inOrder = at === this.expected;
    const gap = this.received.length > this.expected + (this.received[this.expected] ? 1 : 0);
    this.received[at] = true;
    while (this.received[this.expected]) this.packets[this.expected++].load.arrived();
    this.unacknowledged++;
    const quick = this.quickAcks > 0;
    if (quick) this.quickAcks--;
    if (!inOrder || gap || quick || this.unacknowledged >= ACK_EVERY) this.acknowledge(at);
    else {
      this.ackDue = this.clock.now + this.transport.delayedAckMs;
      this.waitToAcknowledge();
    }
  }

  /** One alarm at a time; it is set again when it goes off too early. */
  private waitToAcknowledge(): void {
    if (this.ackWaits) return;
    this.ackWaits = true;
    this.clock.at(this.ackDue, () => {
      this.ackWaits = false;
      if (this.unacknowledged === 0) return;
      if (this.clock.now < this.ackDue) this.waitToAcknowledge();
      else this.acknowledge(this.expected - 1);
    });
  }

  private acknowledge(at: number): void {
    this.unacknowledged = 0;
    const { expected } = this;
    this.clock.at(this.up.send(this.clock.now, ACK), () => this.acknowledged(expected, at));
  }

  /** The receiver sends data anyway, which carries what it would acknowledge. */
  acknowledgeAlong(): void {
    if (this.unacknowledged > 0) this.acknowledge(this.expected - 1);
  }

  /** At the sender: everything before `expected` has arrived, and `at` as well. */
  private acknowledged(expected: number, at: number): void {
    const { clock, congestion, packets } = this;
    let delivered = 0;
    let fresh: Packet | null = null;
    const take = (p: number, state: 'acked' | 'sacked') => {
      const packet = packets[p];
      if (packet.state === 'flying') this.flying--;
      if (packet.state === 'flying' || packet.state === 'lost') delivered++;
      if (packet.state !== 'acked') packet.state = state;
      if (!packet.again && (fresh === null || packet.turn > fresh.turn)) fresh = packet;
    };
    const before = this.una;
    const last = packets[at];
    for (let p = before; p < expected; p++) {
      if (packets[p].state !== 'acked') take(p, 'acked');
      // A large answer has very many: nothing of them has to be kept.
      packets[p] = ACKED;
    }
    this.una = Math.max(this.una, expected);
    if (at >= expected && packets[at].state !== 'sacked') take(at, 'sacked');
    this.highestSacked = Math.max(this.highestSacked, at);
    const newest = fresh as Packet | null;
    if (newest) congestion.sample(clock.now - newest.sentAt);
    if (delivered > 0) {
      this.probed = false;
      this.timeouts = 0;
      this.setTimer();
    }
    if (last.turn >= this.newest.turn) this.newest = { turn: last.turn, rtt: clock.now - last.sentAt };
    this.findLost();
    if (this.recoverUntil >= 0 && this.una >= this.recoverUntil) {
      this.recoverUntil = -1;
      congestion.recovered();
    }
    if (this.recoverUntil >= 0) congestion.recovering(delivered, this.flying);
    else congestion.acknowledged(this.una - before, this.una, packets.length, clock.now);
    this.pump();
  }

  /** Packets that were sent before one that has arrived are lost, at once or when they are late enough. */
  private findLost(): void {
    const { clock, congestion, packets, newest } = this;
    let sacked = 0;
    for (let p = this.una; p <= this.highestSacked; p++) if (packets[p].state === 'sacked') sacked++;
    const certain = this.recoverUntil >= 0 || sacked >= OVERTAKERS;
    const patience = certain ? 0 : Math.min(congestion.leastRtt / 4, congestion.rttMs / 8);
    let again = Number.POSITIVE_INFINITY;
    for (let p = this.una; p <= this.highestSacked; p++) {
      const packet = packets[p];
      if (packet.state !== 'flying' || packet.turn >= newest.turn) continue;
      const late = packet.sentAt + newest.rtt + patience;
      if (late <= clock.now) this.lose(p);
      else again = Math.min(again, late);
    }
    if (!Number.isFinite(again)) return;
    const timer = ++this.patienceTimer;
    clock.at(again, () => {
      if (timer !== this.patienceTimer) return;
      this.findLost();
      this.pump();
    });
  }

  private lose(p: number): void {
    this.packets[p].state = 'lost';
    this.flying--;
    this.lost.push(p);
    if (this.recoverUntil >= 0) return;
    this.recoverUntil = this.packets.length;
    this.congestion.lost();
  }

  /** First a probe after two round trips without news, then everything that flies counts as lost. */
  private setTimer(): void {
    const { congestion } = this;
    // A lone packet may wait for an acknowledgement that is held back (RFC 8985, 7.2).
    const patience = this.flying === 1 ? LONE_MS : 2 * this.transport.delayedAckMs;
    const wait = this.probed
      ? congestion.timeoutMs * 2 ** this.timeouts
      : Math.min(congestion.timeoutMs, 2 * congestion.rttMs + patience);
    this.due = this.clock.now + wait;
    this.waitForNews();
  }

  private waitForNews(): void {
    if (this.waits) return;
    this.waits = true;
    this.clock.at(this.due, () => {
      this.waits = false;
      if (this.flying === 0) return;
      if (this.clock.now < this.due) this.waitForNews();
      else this.noNews();
    });
  }

  private noNews(): void {
    const { congestion } = this;
    if (!this.probed) {
      this.probed = true;
      const last = this.packets.length - 1;
      const { state } = this.packets[last];
      if (state === 'flying') this.flying--;
      if (state === 'flying' || state === 'lost') this.transmit(last, true);
    } else {
      for (let p = this.una; p < this.packets.length; p++) if (this.packets[p].state === 'flying') this.lose(p);
      this.lost.sort((a, b) => a - b);
      this.recoverUntil = -1;
      congestion.timedOut();
      this.timeouts++;
      this.pump();
    }
    this.setTimer();
  }
}
