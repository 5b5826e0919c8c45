import type { Limit } from '../limits/types.ts';
import type { RouteChange, ScriptChange } from '../snapshot/check-routes.ts';
import type { VisitorNotes } from '../snapshot/visitor-types.ts';
import type { Visit } from '../visits/types.ts';

/**
 * What a person corrected on what was read, and what only they can know. Kept beside the snapshots and laid over each
 * new one, so that reading again loses nothing.
 */
export interface Amendments {
  /** Whether the proposed routes and parts were looked through. */
  confirmed: boolean;
  /** Base address, where the one that was read is wrong. */
  base: string | null;
  routes: RouteAmendment[];
  /** Names of classes and ids that are put together while the app runs; `*` stands for any letters. */
  keep: string[];
  /** What is said of classic scripts, by their ids: where a size, a time or an address wasn't known or is wrong. */
  scripts?: Record<string, ScriptChange>;
  /** What is said of the people who come, in place of what was read; null: as read. */
  visitors?: VisitorNotes | null;
  /** Scripts of visits that were kept. */
  visits?: Visit[];
  /** The most that landings and actions may come to. */
  limits?: Limit[];
}

/** Corrections to one route, named by realm and pattern as read (for an added one: as first given). */
export interface RouteAmendment {
  realm: string;
  pattern: string;
  /** `added`: the snapshot has no such route; `removed`: it is left out. */
  kind: 'changed' | 'added' | 'removed';
  change: RouteChange;
}

export const NO_AMENDMENTS: Amendments = { confirmed: false, base: null, routes: [], keep: [] };
