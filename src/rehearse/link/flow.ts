import type { EventQueue } from '../../core/sim/event-queue.ts';
import type { LinkQueue } from '../../core/sim/link-queue.ts';
import { type Load, TcpSender } from '../../core/sim/tcp.ts';
import { transportOf } from '../../core/sim/transport.ts';
import { TlsRecords } from './tls-records.ts';

const TCP = transportOf('h2');
/**
 * What a sender’s system takes in before it lets who writes wait: for each packet that may fly twice what one takes in memory, for ten packets
 * at least (Linux, tcp_sndbuf_expand). Servers decide late what to send next because of it.
 */
const ROOM_PER_PACKET = 2 * 2304;
const LEAST_PACKETS = 10;
/** Packets that a system acknowledges one by one at first (Linux, tcp_enter_quickack_mode). */
const QUICK_ACKS = 16;

/** The link as one direction of a connection sees it: what carries it, and what carries its acknowledgements. */
export interface Ways {
  clock: EventQueue;
  over: LinkQueue;
  back: LinkQueue;
  rttMs: number;
}

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
  private accepted: (() => void) | null = null;
  private readonly sender: TcpSender;
  private readonly records: TlsRecords | null;

  /**
   * `arrived` gets what arrives; `finished` is told when all has, after the end. `apart`: the TLS records of a browser, each of which it
   * writes at once, leave in packets of their own (the loopback puts them together).
   */
  constructor(
    { clock, over, back, rttMs }: Ways,
    private readonly arrived: (bytes: Buffer) => void,
    private readonly finished: () => void,
    apart: boolean,
  ) {
    const left = () => {};
    this.sender = new TcpSender(clock, over, back, rttMs, TCP, () => this.nextLoad(), left, QUICK_ACKS);
    this.records = apart ? new TlsRecords() : null;
  }

  /** Lets so many packets more fly at first. */
  widen(packets: number): void {
    this.sender.widen(packets);
  }

  /** Takes bytes in; `accepted` is told when there is room for more. */
  take(bytes: Buffer, accepted: () => void): void {
    this.waiting.push(bytes);
    this.bytes += bytes.length;
    this.records?.take(bytes);
    this.accepted = accepted;
    this.sender.pump();
    this.acceptIfRoom();
  }

  /** There is nothing more to send. */
  end(): void {
    this.ended = true;
    this.finishIfDone();
  }

  private acceptIfRoom(): void {
    const { accepted } = this;
    const room = ROOM_PER_PACKET * Math.max(LEAST_PACKETS, this.sender.window);
    if (!accepted || this.bytes + this.flying > room) return;
    this.accepted = null;
    accepted();
  }

  private nextLoad(): Load | null {
    if (this.bytes === 0) return null;
    const end = this.records?.endAfter(this.sent) ?? null;
    const together = end === null ? this.bytes : end - this.sent;
    const payload = this.cut(Math.min(TCP.segment, this.bytes, together));
    this.sent += payload.length;
    this.flying += payload.length;
    return {
      bytes: payload.length,
      arrived: () => {
        this.flying -= payload.length;
        this.arrived(payload);
        this.acceptIfRoom();
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
    this.bytes -= length;
    return parts.length === 1 ? parts[0] : Buffer.concat(parts);
  }

  private finishIfDone(): void {
    if (this.ended && this.flying === 0 && this.bytes === 0) this.finished();
  }
}
