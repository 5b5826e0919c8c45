/** What a landing is measured by, and what an action is: ids in the order in which they are shown. */
export const LANDING_MEASURES = [
  ...(['first content', 'first screen', 'interactive', 'quiet', 'start bytes'] as const),
  ...(['other scripts', 'also fetched', 'requests', 'hops'] as const),
  ...(['blocked', 'unused bytes', 'wasted bytes'] as const),
] as const;
export const ACTION_MEASURES = ['wait', 'until complete', 'bytes', 'requests', 'hops'] as const;
export type LandingMeasure = (typeof LANDING_MEASURES)[number];
export type ActionMeasure = (typeof ACTION_MEASURES)[number];
export type Measure = LandingMeasure | ActionMeasure;

export type LandingFigures = Record<LandingMeasure, number>;
export type ActionFigures = Record<ActionMeasure, number>;

const UNITS: Record<Measure, 'ms' | 'bytes' | 'count'> = {
  'first content': 'ms',
  'first screen': 'ms',
  interactive: 'ms',
  quiet: 'ms',
  'start bytes': 'bytes',
  'other scripts': 'bytes',
  'also fetched': 'bytes',
  requests: 'count',
  hops: 'count',
  blocked: 'ms',
  'unused bytes': 'bytes',
  'wasted bytes': 'bytes',
  wait: 'ms',
  'until complete': 'ms',
  bytes: 'bytes',
};

/** How a measure is written: ms, bytes or a count. Less is better for all of them. */
export function unitOf(measure: Measure): 'ms' | 'bytes' | 'count' {
  return UNITS[measure];
}
