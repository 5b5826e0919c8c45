import { named, type Of } from '../form/form.ts';
import { assumed, optional, record } from '../form/records.ts';
import { amountUpTo, listOf, MILLIS, SHARE, TEXT } from '../form/values.ts';

/** A time that differs from person to person. */
export const SPREAD = named(
  'spread',
  record({
    medianMs: MILLIS,
    /** The standard deviation of its logarithm. */
    spread: assumed(amountUpTo(5), 0),
  }),
);
export type Spread = Of<typeof SPREAD>;

export const ROUTE_NOTES = record({
  pattern: TEXT,
  /** From one moment on the route to the next. */
  dwell: optional(SPREAD),
  /** Where people go from here; who goes nowhere leaves. */
  moves: optional(listOf(record({ to: TEXT, share: SHARE }))),
  /** Share of the stays on the route in which a part's act is done. */
  acts: optional(listOf(record({ part: TEXT, share: SHARE, hesitation: optional(SPREAD) }))),
});
export type RouteNotes = Of<typeof ROUTE_NOTES>;

/**
 * What is said of an app's visitors, as far as somebody says it: in the notes beside its sources, by correction, or
 * learned from a log. Shares are from 0 to 1.
 */
export const VISITOR_NOTES = named(
  'visitors',
  record({
    /** Visitors that are in a segment; parts may be for one of them only. */
    segments: optional(listOf(record({ name: TEXT, share: SHARE }))),
    /** Visitors who touch, so that nothing announces their acts; as the device says where this doesn't. */
    touch: optional(SHARE),
    /** Visitors who asked their browser to save data. */
    dataSaver: optional(SHARE),
    /** Visits of people who were there before, and those of them for whom the app was deployed again since. */
    returning: optional(SHARE),
    deployed: optional(SHARE),
    /** From the approach to the act. */
    hesitation: optional(SPREAD),
    routes: optional(listOf(ROUTE_NOTES)),
  }),
);
export type VisitorNotes = Of<typeof VISITOR_NOTES>;

/** The visitors of an app, complete. */
export interface VisitorModel {
  segments: { name: string; share: number }[];
  /** Null: as the device says. */
  touch: number | null;
  dataSaver: number;
  returning: number;
  deployed: number;
  hesitation: Spread;
  routes: Habits[];
}

export interface Habits {
  pattern: string;
  /** Path of the page's module. */
  page: string;
  /** Share of all landings. */
  landings: number;
  dwell: Spread;
  moves: { to: string; share: number }[];
  acts: { part: string; name: string; module: string; scroll: boolean; share: number; hesitation: Spread }[];
  /** Parts that only some stays need, by what that hangs on. */
  conditions: { part: string; share: number; segment?: string; group?: string }[];
}
