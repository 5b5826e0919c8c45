import type { EventQueue } from '../../core/sim/event-queue.ts';
import type { LinkQueue } from '../../core/sim/link-queue.ts';
import { type Load, TcpSender } from '../../core/sim/tcp.ts';
import { transportOf } from '../../core/sim/transport.ts';
import { TlsRecords } from './tls-records.ts';

const TCP = transportOf('h2');
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

  /**
   * Takes bytes in, however many wait: servers that send what is ready in the order in which it became so do as well with them as with a
   * small store.
   */
  take(bytes: Buffer): void {
    this.waiting.push(bytes);
    this.bytes += bytes.length;
    this.records?.take(bytes);
    this.sender.pump();
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
    this.bytes -= length;
    return parts.length === 1 ? parts[0] : Buffer.concat(parts);
  }

  private finishIfDone(): void {
    if (this.ended && this.flying === 0 && this.bytes === 0) this.finished();
  }
}
