import type { EventQueue } from '../../core/sim/event-queue.ts';
import type { LinkQueue } from '../../core/sim/link-queue.ts';
import { type Load, TcpSender } from '../../core/sim/tcp.ts';
import { transportOf } from '../../core/sim/transport.ts';
import { TlsRecords } from './tls-records.ts';

/** What is taken in at most before the one who sends has to wait, in bytes: what a sender’s system keeps for it. */
const MOST_WAITING = 256 * 1024;

const TCP = transportOf('h2');

/**
 * One direction of a connection over the link: bytes that are taken in leave in packets as TCP’s window allows, and are handed on when they
 * arrive, in their order.
 */
export class Flow {
  private readonly waiting: Buffer[] = [];
  private bytes = 0;
  private flying = 0;
  private ended = false;
  private sent = 0;
  private readonly sender: TcpSender;

  /**
   * `over` carries it, `back` its acknowledgements; `arrived` gets what arrives; `room` is told when more can be taken in. `records`: what is
   * written at once leaves in packets of its own, as browsers’ requests do (the loopback puts them together).
   */
  constructor(
    clock: EventQueue,
    over: LinkQueue,
    back: LinkQueue,
    rttMs: number,
    private readonly arrived: (bytes: Buffer) => void,
    private readonly room: () => void,
    private readonly finished: () => void,
    private readonly records: TlsRecords | null,
  ) {
    const left = () => {};
    this.sender = new TcpSender(clock, over, back, rttMs, TCP, () => this.nextLoad(), left);
  }

  /** Takes bytes in. Gives whether there is room for more. */
  take(bytes: Buffer): boolean {
    this.waiting.push(bytes);
    this.bytes += bytes.length;
    this.records?.take(bytes);
    this.sender.pump();
    return this.bytes < MOST_WAITING;
  }

  /** There is nothing more to send. */
  end(): void {
    this.ended = true;
    this.finishIfDone();
  }

  private nextLoad(): Load | null {
    if (this.bytes === 0) return null;
    const end = this.records?.endAfter(this.sent) ?? null;
    const together = end === null ? this.bytes : end - this.sent;
    const payload = this.cut(Math.min(TCP.segment, this.bytes, together));
    this.sent += payload.length;
    this.flying++;
    return {
      bytes: payload.length,
      arrived: () => {
        this.flying--;
        this.arrived(payload);
        this.finishIfDone();
      },
    };
  }

  private cut(length: number): Buffer {
    const parts: Buffer[] = [];
    for (let left = length; left > 0; ) {
      const part = this.waiting[0].subarray(0, left);
      if (part.length === this.waiting[0].length) this.waiting.shift();
      else this.waiting[0] = this.waiting[0].subarray(part.length);
      parts.push(part);
      left -= part.length;
    }
    const full = this.bytes >= MOST_WAITING;
    this.bytes -= length;
    if (full && this.bytes < MOST_WAITING) this.room();
    return parts.length === 1 ? parts[0] : Buffer.concat(parts);
  }

  private finishIfDone(): void {
    if (this.ended && this.flying === 0 && this.bytes === 0) this.finished();
  }
}
