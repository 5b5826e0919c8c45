export type Unit = 'ms' | 'bytes' | 'count';

interface MeasureEntry {
  /** What it is called wherever it is shown. */
  name: string;
  unit: Unit;
  /** What it means, as the end of a sentence. */
  about: string;
}

const REQUESTS = { name: 'requests', unit: 'count', about: 'sent until interactive, or for the action' } as const;
const HOPS = { name: 'hops', unit: 'count', about: 'longest chain of discoveries among them' } as const;

/** What a landing is measured by, in the order in which it is shown. Less is better for all of it. */
const LANDING = {
  'first content': {
    name: 'first content',
    unit: 'ms',
    about: 'when the first content is on the screen: the first contentful paint (FCP) of the Paint Timing standard',
  },
  'largest content': {
    name: 'largest content',
    unit: 'ms',
    about:
      'when the largest content of the first screen shows: largest contentful paint (LCP) of the W3C. Code says no areas, so its heaviest image is taken for it, where it has one, else the part that takes most to draw',
  },
  'first screen': {
    name: 'first screen complete',
    unit: 'ms',
    about: 'when every part of the first screen shows',
  },
  interactive: {
    name: 'interactive',
    unit: 'ms',
    about: 'when all interactive parts of the first screen answer, and no task that is queued exceeds 50 ms',
  },
  'time to interactive': {
    name: 'time to interactive',
    unit: 'ms',
    about:
      'after first content and the document’s own scripts, the end of the last long task before five seconds of quiet; it knows tasks and requests, but no parts: before “interactive” where the last part comes with a short task, after it where a long task follows',
  },
  'start bytes': {
    name: 'start',
    unit: 'bytes',
    about: 'script and style of the app that the landing asks for because its first screen needs them, compressed',
  },
  'other scripts': {
    name: 'other scripts',
    unit: 'bytes',
    about: 'third-party and classic scripts of the document, compressed',
  },
  'also fetched': {
    name: 'also fetched',
    unit: 'bytes',
    about:
      'what the landing fetches by itself without needing it: when idle, after the first paint or the load event, ahead of a later moment',
  },
  requests: REQUESTS,
  hops: HOPS,
  blocked: {
    name: 'total blocking',
    unit: 'ms',
    about: 'total blocking time: what exceeds 50 ms in tasks between first content and interactive',
  },
  'unused bytes': {
    name: 'not used at start',
    unit: 'bytes',
    about: 'of the start: compressed bytes of modules that the first screen doesn’t need',
  },
  'wasted bytes': { name: 'waste', unit: 'bytes', about: 'bytes that are fetched and never used' },
} as const satisfies Record<string, MeasureEntry>;

/** What an action is measured by. */
const ACTION = {
  wait: {
    name: 'wait',
    unit: 'ms',
    about: 'from the act until it shows, acted on at once after the landing has come to rest',
  },
  'until complete': {
    name: 'until complete',
    unit: 'ms',
    about: 'from the act until all of it is there, with its images and data',
  },
  bytes: { name: 'fetched', unit: 'bytes', about: 'bytes that the action fetches' },
  requests: REQUESTS,
  hops: HOPS,
} as const satisfies Record<string, MeasureEntry>;

export type LandingMeasure = keyof typeof LANDING;
export type ActionMeasure = keyof typeof ACTION;
export type Measure = LandingMeasure | ActionMeasure;

export type LandingFigures = Record<LandingMeasure, number>;
export type ActionFigures = Record<ActionMeasure, number>;

/** Each measure with its name, unit and meaning. */
export const MEASURES: Record<Measure, MeasureEntry> = { ...LANDING, ...ACTION };

/** Ids in the order in which they are shown. */
export const LANDING_MEASURES = Object.keys(LANDING) as LandingMeasure[];
export const ACTION_MEASURES = Object.keys(ACTION) as ActionMeasure[];

/** What measures were called in files before; read, never written. The store renames its own, by a migration. */
export const FORMER_MEASURES: Readonly<Record<string, Measure>> = { quiet: 'time to interactive' };
