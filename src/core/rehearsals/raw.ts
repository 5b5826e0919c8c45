/** What a page tells of one landing, as its recorder kept it. Times in ms from the start of the navigation. */
export interface RawLanding {
  document: RawEntry & { contentLoaded: number; load: number };
  resources: RawEntry[];
  firstContent: number | null;
  largestContent: number | null;
  longTasks: { start: number; end: number }[];
  /** When elements were added, and when that was painted. */
  changes: { at: number; painted: number }[];
  /** When the person first did anything, though it may have brought nothing; null where nobody did. */
  firstAct: number | null;
  /** When the person began each act, in the order in which they were asked for; null for one that nothing came of. */
  acts: (number | null)[];
  /** What modules took by themselves, by index. */
  times: Record<number, number>;
  /** Calls of what watched modules export: begun, ended, and whether it came to its end. */
  calls: Record<number, [began: number, ended: number, whole: boolean][]>;
}

/** As the browser tells of requests (Resource Timing). */
export interface RawEntry {
  address: string;
  startTime: number;
  requestStart: number;
  responseStart: number;
  responseEnd: number;
  transferSize: number;
}
