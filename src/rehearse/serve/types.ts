import type { CacheRule } from '../../core/load/types.ts';

/** What is answered at one address. */
export interface Answer {
  status?: number;
  /** Media type. */
  type: string;
  /** As it is sent: compressed where `encoding` says so. */
  body: Buffer;
  encoding?: 'br' | 'gzip';
  cache: CacheRule;
  /** Until the first byte of the answer leaves. */
  serverMs: number;
  /** Links in the headers of the answer, and those that are sent as soon as the request is read (RFC 8288, 8297). */
  links?: readonly string[];
  earlyLinks?: readonly string[];
  /** Streamed bodies: everything up to byte `upTo` is written `atMs` after the first byte. */
  flush?: readonly { upTo: number; atMs: number }[];
}

/** A request as far as its answer depends on it: `address` with path and query. */
export interface Request {
  host: string;
  address: string;
  /** It is for a page of its own, not for something that a page uses. */
  forDocument: boolean;
  /** What is sent with it, where that is more than an address. */
  sent?: Sent;
}

/** What a request sends to the server. */
export interface Sent {
  method: string;
  /** Media type; empty where none is said. */
  type: string;
  text: string;
}

/** Gives what is at an address; null where there is nothing. */
export type Answering = (request: Request) => Answer | null | Promise<Answer | null>;
