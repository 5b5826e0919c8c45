/** Cubic (RFC 9438): what stays of the window after a loss, and how steeply it grows back, per second cubed. */
const BETA = 0.7;
const STEEPNESS = 0.4;
/** Before the first loss the window grows by at least a twentieth per round trip. */
const LEAST_GROWTH = 20;
/** Packets acknowledged per packet of growth, relative to the window, that plain TCP would have at this BETA. */
const RENO = 15 / 8;
/** Hybrid slow start looks at windows from here on, at so many samples of a round. */
const HYBRID_FROM = 16;
const HYBRID_SAMPLES = 8;

/** How many packets may fly: slow start with hybrid exit (delay), cubic growth, reduction after losses. */
export class Congestion {
  window: number;
  rttMs = 0;
  private threshold = Number.POSITIVE_INFINITY;
  private variation = 0;
  private latest = 0;
  /** Shortest round trip seen, in ms. */
  leastRtt = Number.POSITIVE_INFINITY;
  /** Whether the window limited what was sent, or how much of it was used at most; up to which packet that is known. */
  private limited = false;
  private mostOut = 0;
  private usageEnd = -1;
  private round = { end: -1, samples: 0, shortest: Number.POSITIVE_INFINITY };
  private credit = 0;
  /** Cubic's epoch. */
  private highest = 0;
  private epoch: { start: number; origin: number; k: number; reno: number; renoCredit: number } | null = null;
  private before = 0;
  private delivered = 0;
  private sentAgain = 0;

  /** `initial`: the window that a connection begins with, in packets (RFC 6928: ten). */
  constructor(
    private readonly initial: number,
    private readonly forgets: boolean,
  ) {
    this.window = initial;
  }

  get timeoutMs(): number {
    return this.rttMs + Math.max(200, 4 * this.variation);
  }

  private get slowStart(): boolean {
    return this.window < this.threshold;
  }

  /** Takes a round-trip time (RFC 6298). */
  sample(rtt: number): void {
    this.leastRtt = Math.min(this.leastRtt, rtt);
    if (this.rttMs === 0) {
      this.rttMs = rtt;
      this.variation = rtt / 2;
    } else {
      this.variation += (Math.abs(rtt - this.rttMs) - this.variation) / 4;
      this.rttMs += (rtt - this.rttMs) / 8;
    }
    this.latest = rtt;
  }

  /** Notes how much of the window is in use. */
  used(flying: number, limited: boolean, sent: number, acknowledged: number): void {
    if (acknowledged < this.usageEnd && !limited && (this.limited || flying <= this.mostOut)) return;
    this.limited = limited;
    this.mostOut = flying;
    this.usageEnd = sent;
  }

  /** A connection that has rested begins again with a small window: half for every timeout that has passed. */
  idle(ms: number): void {
    if (!this.forgets || !(ms > this.timeoutMs) || !Number.isFinite(ms)) return;
    this.threshold = Math.max(this.threshold, this.window * 0.75);
    for (let left = ms - this.timeoutMs; left > 0 && this.window > this.initial; left -= this.timeoutMs)
      this.window = Math.max(this.initial, this.window / 2);
    this.epoch = null;
  }

  /** So many packets were acknowledged, up to packet `una` of `sent`. */
  acknowledged(count: number, una: number, sent: number, now: number): void {
    if (this.slowStart) this.watchDelay(una, sent);
    if (count === 0) return;
    if (!this.limited && !(this.slowStart && this.window < 2 * this.mostOut)) return;
    if (this.slowStart) this.window += count;
    else this.grow(count, now);
  }

  /** Slow start ends when even the shortest of a round's first delays shows a standing queue. */
  private watchDelay(una: number, sent: number): void {
    const { round } = this;
    if (this.window < HYBRID_FROM) return;
    if (una > round.end) {
      round.end = sent;
      round.samples = 0;
      round.shortest = Number.POSITIVE_INFINITY;
    }
    round.shortest = Math.min(round.shortest, this.latest);
    if (round.samples < HYBRID_SAMPLES) round.samples++;
    else if (round.shortest > this.leastRtt + Math.min(16, Math.max(4, this.leastRtt / 8)))
      this.threshold = this.window;
  }

  private grow(count: number, now: number): void {
    if (!this.epoch) {
      const below = this.highest > this.window;
      this.epoch = {
        start: now,
        origin: below ? this.highest : this.window,
        k: below ? Math.cbrt((this.highest - this.window) / STEEPNESS) : 0,
        reno: this.window,
        renoCredit: 0,
      };
    }
    const { epoch } = this;
    const t = (now - epoch.start + this.leastRtt) / 1000 - epoch.k;
    const target = epoch.origin + STEEPNESS * t ** 3;
    let every = target > this.window ? this.window / (target - this.window) : 100 * this.window;
    if (this.highest === 0) every = Math.min(every, LEAST_GROWTH);
    epoch.renoCredit += count;
    while (epoch.renoCredit > this.window * RENO) {
      epoch.renoCredit -= this.window * RENO;
      epoch.reno++;
    }
    if (epoch.reno > this.window) every = Math.min(every, this.window / (epoch.reno - this.window));
    this.credit += count;
    every = Math.max(2, every);
    while (this.credit >= every) {
      this.credit -= every;
      this.window++;
    }
  }

  /** A packet is lost: the window shrinks, once per round. */
  lost(): void {
    this.highest = this.window < this.highest ? (this.window * (1 + BETA)) / 2 : this.window;
    this.before = this.window;
    this.threshold = Math.max(2, Math.floor(this.window * BETA));
    this.delivered = 0;
    this.sentAgain = 0;
    this.epoch = null;
    this.credit = 0;
  }

  /** While what was lost is sent again, as much leaves as arrives, reduced in proportion (RFC 6937). */
  recovering(delivered: number, flying: number): void {
    this.delivered += delivered;
    let more: number;
    if (flying > this.threshold) more = Math.ceil((this.delivered * this.threshold) / this.before) - this.sentAgain;
    else more = Math.min(this.threshold - flying, Math.max(this.delivered - this.sentAgain, delivered) + 1);
    more = Math.max(more, this.sentAgain === 0 ? 1 : 0);
    this.sentAgain += more;
    this.window = flying + more;
  }

  recovered(): void {
    this.window = this.threshold;
  }

  timedOut(): void {
    this.window = 1;
  }
}
