import type { Link } from './conditions.ts';

/** What differs between TCP and QUIC for who sends. Bytes and packets. */
export interface Transport {
  /** Most that a packet carries, and what is around it. */
  segment: number;
  overhead: number;
  /** The window that a connection begins with, of the server and of the browser. */
  window: number;
  /** A lone packet is acknowledged after this long, in ms. */
  delayedAckMs: number;
  /** Packets leave spread over the round trip, and not as fast as they may. */
  paced: boolean;
  /** After a rest a connection begins again with a small window. */
  forgets: boolean;
}

/** Linux's TCP with TLS (facts 4, 6 to 9). */
const TCP: Transport = { segment: 1448, overhead: 52, window: 10, delayedAckMs: 40, paced: false, forgets: true };

/**
 * QUIC as recorded (facts 53 to 58): packets of 1176 bytes in the mean, no drops where TCP has them, a browser whose requests don't come in
 * bursts of ten; a window of 32 packets at the beginning and an acknowledgement after 25 ms (RFC 9000, 13.2; the server's own default).
 */
const QUIC: Transport = { segment: 1200, overhead: 60, window: 32, delayedAckMs: 25, paced: true, forgets: false };

/** The protocol that one connection speaks. */
export type Spoken = Exclude<Link['protocol'], 'h2-h3'>;

/** How a connection of a protocol sends. */
export function transportOf(protocol: Spoken): Transport {
  return protocol === 'h3' ? QUIC : TCP;
}
