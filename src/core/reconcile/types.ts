/** What a plan promised of a route's start, and what the build delivered. Bytes compressed. */
export interface RouteDelivered {
  pattern: string;
  promised: { bytes: number; files: number };
  /** Null where the route's page is in none of the files. */
  delivered: { bytes: number; files: string[] } | null;
  /** Modules in the delivered start that the plan keeps out of it, heaviest first (minified bytes), and where they lie. */
  extra: { path: string; bytes: number; file: string }[];
  /** How many more modules than these. */
  more: number;
}

/** `untold`: the files can’t tell. */
export const DELIVERED = ['delivered', 'not delivered', 'untold'] as const;
export type Delivered = (typeof DELIVERED)[number];

export interface DecisionDelivered {
  decision: number;
  words: string;
  state: Delivered;
  why: string;
}

export interface HintDelivered {
  words: string;
  /** Routes whose document should have it. */
  routes: string[];
  /** The link as it should stand there, and what it names. */
  rel: string;
  address: string;
  state: Delivered;
  why: string;
}

export interface Reconciliation {
  routes: RouteDelivered[];
  decisions: DecisionDelivered[];
  hints: HintDelivered[];
  /** Modules of the plan's files that no file of the build holds: left out by the build, or named otherwise. */
  unknown: string[];
  /** Whether all that the files can tell was delivered. */
  ok: boolean;
}
