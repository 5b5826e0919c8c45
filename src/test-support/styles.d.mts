import type { Part } from '../core/snapshot/route-types.ts';

/** What a sample of a style says of itself. */
export interface Expected {
  routes: { pattern: string; layouts: string[]; page: string }[];
  /** Modules that deferred imports lead to. */
  deferred: string[];
  /** Parts by route, in words: `src/log.vue action (Show the log) src/day.vue:6`. */
  parts?: Record<string, string[]>;
  /** Modules that weigh nothing in the browser. */
  weightless?: string[];
  /** Modules that do weigh something. */
  weighty?: string[];
  /** Some modules of a route's start, some that aren't in it, and some that the app hasn't at all. */
  starts?: Record<string, string[]>;
  notInStart?: Record<string, string[]>;
  notThere?: string[];
  /** Modules that start workers. */
  workers?: string[];
  /** Modules that other ones import at once. */
  thereAtStart?: string[];
  /** Beginnings of what is told as not understood. */
  told: string[];
}

/** A part as samples write it: its module, place, what draws it, and where that is written. */
export function partInWords(part: Part): string;
export function styleNames(): string[];
export function styleSample(name: string): { folder: string; expected: Expected };
