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

export type ToServer = { start: ServerStart } | { to: number; answer: Answer | null };

/** Where a started server is: its port over the link, and past it. */
export interface Ready {
  port: number;
  direct: number;
  fingerprint: string | null;
}

export type FromServer = Ready | { ask: number; request: Request };
