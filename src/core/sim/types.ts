import type { ResourceType } from '../load/types.ts';

/** What the simulator gives. Times in ms from the start of the navigation, sizes in bytes. */
export interface Timeline {
  requests: RequestRecord[];
  tasks: TaskRecord[];
  reveals: Reveal[];
  moments: PageMoments;
  /** Instants by which a step's `ready` files had been evaluated, per step id. */
  steps: { id: string; at: number; ready: number }[];
  /** Set when the event limit ended the run: what was going on. */
  stopped?: string;
}

export type RequestRole = 'needed' | 'hinted' | 'on demand' | 'in case' | 'wasted' | 'content';

export interface RequestRecord {
  /** Index of the resource; −1 for the document. */
  resource: number;
  address: string;
  name: string;
  origin: string;
  type: ResourceType | 'document';
  role: RequestRole;
  hop: number;
  cause: Cause;
  /** When the browser decided to fetch it. */
  discovered: number;
  /** When the browser had it ready to send. */
  queued: number;
  /** When it was free to go: no longer held back by more urgent ones. */
  released: number;
  /** When the connection was there and the request left. */
  sent: number;
  /** When the server had the request: half a round trip later, or more behind other requests. */
  reached: number;
  /** When the server had the answer ready, as seen from the client's clock. */
  served: number;
  firstByte: number;
  end: number;
  /** Body bytes that travelled; 0 from the cache. */
  bytes: number;
  priority: Priority;
  connection: number;
  hint: boolean;
  /** Pieces as they arrived: how long the piece was on the link, and its size there. */
  pieces: { from: number; to: number; bytes: number }[];
  evaluated: number;
  /** Of a document: when the last answer that led on to another address was there. */
  redirectedAt?: number;
  /** Asked for by a trigger before anybody wanted it, and not wanted since. */
  early?: true;
  /** It came from what the browser has kept: nothing travelled. */
  fromCache?: true;
  /** Nobody knows its size: it is taken for an answer without a body. */
  unknownSize?: true;
  /** The answer was that the file is no longer there. */
  gone?: true;
  /** The page was left before the answer was complete; `end` is when that happened. */
  cut?: true;
}

export type Priority = 0 | 1 | 2 | 3 | 4;

export interface TaskRecord {
  kind: 'parse' | 'evaluate' | 'render' | 'paint' | 'work';
  name: string;
  /** Request that brought the script; −1 when none did. */
  request: number;
  /** Of a task that draws: the part that it draws, or has answer. */
  part?: number;
  /** It draws that part anew, with the answers that fill it. */
  anew?: true;
  ready: number;
  start: number;
  end: number;
  cause: Cause;
}

/** Why something happened: the request or task whose progress made it possible, and the instant of that progress. */
export interface Cause {
  kind: 'navigation' | 'parser' | 'header' | 'evaluation' | 'arrival' | 'task' | 'trigger';
  /** In words, as in `import in departure-board`. */
  what: string;
  at: number;
  request: number;
  task: number;
}

/**
 * `shown`: drawn; `filled`: its images and data are there too; `answering`: its script has run; `failed`: what it needs
 * can't be loaded; `gone`: it has left the screen; `in font`: its text, which showed in another font, shows in its own.
 */
export type RevealState = 'stand-in' | 'shown' | 'in font' | 'filled' | 'answering' | 'failed' | 'gone';

export interface Reveal {
  part: number;
  state: RevealState;
  at: number;
  cause: Cause;
}

export interface PageMoments {
  bodyInserted: number;
  domInteractive: number;
  domContentLoaded: number;
  load: number;
  firstContent: number;
  firstContentCause: Cause | null;
}
