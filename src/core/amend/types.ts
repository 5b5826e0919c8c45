import { named, type Of } from '../form/form.ts';
import { assumed, assumedOrNull, optional, optionalOrNull, record } from '../form/records.ts';
import { choice, FLAG, listOf, mapOf, orNull, TEXT, textUpTo } from '../form/values.ts';
import { LIMIT } from '../limits/types.ts';
import { BASE } from '../snapshot/base.ts';
import { SCRIPT_CHANGE } from '../snapshot/document-types.ts';
import { MEASURED, type Measured } from '../snapshot/measured-types.ts';
import { ADDRESS_PATTERN, ROUTE_CHANGE } from '../snapshot/route-types.ts';
import { VISITOR_NOTES, type VisitorNotes } from '../snapshot/visitor-types.ts';
import { LONGEST_PATTERN } from '../text/wildcard.ts';
import { VISIT } from '../visits/types.ts';

/** Corrections to one route, named by realm and pattern as read (for an added one: as first given). */
const ROUTE_AMENDMENT = record({
  realm: TEXT,
  pattern: ADDRESS_PATTERN,
  /** `added`: the snapshot has no such route; `removed`: it is left out. */
  kind: choice(['changed', 'added', 'removed']),
  change: assumedOrNull(ROUTE_CHANGE, {}),
});
export type RouteAmendment = Of<typeof ROUTE_AMENDMENT>;

/**
 * What a person corrected on what was read, and what only they can know. Kept beside the snapshots and laid over each
 * new one, so that reading again loses nothing.
 */
export const AMENDMENTS = named(
  'amendments',
  record({
    /** Whether the proposed routes and parts were looked through. */
    confirmed: assumed(FLAG, false),
    /** Base address, where the one that was read is wrong. */
    base: assumed(orNull(BASE), null),
    routes: assumedOrNull(listOf(ROUTE_AMENDMENT), []),
    /** Names of classes and ids that are put together while the app runs; `*` stands for any letters. */
    keep: assumedOrNull(listOf(textUpTo(LONGEST_PATTERN)), []),
    /** What is said of classic scripts, by their ids: where a size, a time or an address wasn't known or is wrong. */
    scripts: optional(mapOf(SCRIPT_CHANGE)),
    /** What is said of the people who come, in place of what was read; left out: as read. */
    visitors: optionalOrNull(VISITOR_NOTES),
    /** Scripts of visits that were kept. */
    visits: optional(listOf(VISIT)),
    /** The most that landings and actions may come to. */
    limits: optional(listOf(LIMIT)),
    /** What was measured of the app. */
    measured: optionalOrNull(MEASURED),
  }),
);
export interface Amendments extends Omit<Of<typeof AMENDMENTS>, 'visitors' | 'measured'> {
  visitors?: VisitorNotes | null;
  measured?: Measured | null;
}

export const NO_AMENDMENTS: Amendments = { confirmed: false, base: null, routes: [], keep: [] };
