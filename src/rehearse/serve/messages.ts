import type { CarriedLink } from '../link/emulated-link.ts';
import type { Speaking } from './server.ts';
import type { Answer, Request } from './types.ts';

/** What a server is started with. */
export interface ServerStart {
  hosts: string[];
  speaking: Speaking;
  link: CarriedLink;
  /** Answers that are known before anybody asks. */
  answers: [Request, Answer][];
}

/** `newcomer`: the next connections are those of a browser that was never here. */
export type ToServer = { start: ServerStart } | { newcomer: true } | { to: number; answer: Answer | null };

/** Where a started server is: its ports over the link, one for each host, and that past it. */
export interface Ready {
  ports: number[];
  direct: number;
  fingerprint: string | null;
}

export type FromServer = Ready | { ask: number; request: Request };
