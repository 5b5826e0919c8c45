import type { RecordedRequest } from '../recordings/types.ts';
import type { Conditions } from '../sim/conditions.ts';

/** A landing that was run in a browser under a plan: how often it was run, and what was measured. Times in ms from the start of the navigation. */
export interface Rehearsal {
  plan: string;
  pattern: string;
  /** The address on the route that was landed on. */
  address: string;
  conditions: Conditions;
  /**
   * What was done once the landing had come to rest, one after the other: a part by its id, or a route that was moved to, by its pattern.
   * Left out where nobody did anything.
   */
  acts?: string[];
  /** The browser’s name and version. */
  browser: string;
  /** When it ended (ISO 8601). */
  at: string;
  runs: RehearsedRun[];
  /** Decisions of the plan that weren’t run because only a person can make their edit: by their index, and why. */
  leftOut: { decision: number; why: string }[];
  /** What stood in for something, or was otherwise than it would be, in words. */
  told: string[];
}

/** What each quantity of a rehearsal means is what the prediction means by it. */
export interface RehearsedRun {
  /** When the first act was, where one was done: what began after it is of no landing. */
  firstAct?: number;
  /** The document first. */
  requests: RecordedRequest[];
  moments: RehearsedMoments;
  parts: RehearsedPart[];
  /** Tasks of the page’s thread of 1 ms and more, by what they mostly did. */
  tasks: RehearsedTask[];
  /** What modules took by themselves when they ran, by path; 0 for those that took too little to be measured. */
  modules: Record<string, number>;
  /** How many times slower the page’s thread was than the reference machine’s: by the machine that ran it, and by how it was slowed. */
  slowed: number;
  /** Share of the machine that others kept busy meanwhile (0 to 1). */
  busy: number;
  /** Errors that the page threw. */
  errors: string[];
}

export interface RehearsedMoments {
  firstContent: number | null;
  largestContent: number | null;
  contentLoaded: number | null;
  load: number | null;
  /** All parts of the first screen that answer are there, and no long task goes on. */
  interactive: number | null;
  /** From each act to what it brings being painted, in ms; null where that wasn’t seen. Left out where nobody did anything. */
  waits?: (number | null)[];
}

export interface RehearsedPart {
  /** As in the load program. */
  part: string;
  /** Painted for the first time; null where that couldn’t be seen. */
  shown: number | null;
  /** What drawing it took, with what it drew and the layout that came of it, on the device of the conditions; null where that can’t be told apart. */
  drawMs: number | null;
  /** Its code came in files of its own, after those that start the app. */
  late: boolean;
}

export const THREAD_KINDS = ['run', 'compile', 'draw', 'layout', 'other'] as const;
/** `draw`: script that was called after it was loaded (drawing, mostly); `layout`: styles, layout, painting. */
export type ThreadKind = (typeof THREAD_KINDS)[number];

export interface RehearsedTask {
  start: number;
  end: number;
  /** Of which kinds its time was, in ms. */
  of: Partial<Record<ThreadKind, number>>;
}
