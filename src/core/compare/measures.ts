/** What a landing is measured by, and what an action is: ids in the order in which they are shown. */
export const LANDING_MEASURES = [
  ...(['first content', 'first screen', 'interactive', 'quiet', 'start bytes', 'requests', 'hops'] as const),
  ...(['blocked', 'unused bytes', 'wasted bytes'] as const),
] as const;
export const ACTION_MEASURES = ['wait', 'bytes', 'requests', 'hops'] as const;
export type LandingMeasure = (typeof LANDING_MEASURES)[number];
export type ActionMeasure = (typeof ACTION_MEASURES)[number];
export type Measure = LandingMeasure | ActionMeasure;

export type LandingFigures = Record<LandingMeasure, number>;
export type ActionFigures = Record<ActionMeasure, number>;

/** How a measure is written: ms, bytes or a count. Less is better for all of them. */
export function unitOf(measure: Measure): 'ms' | 'bytes' | 'count' {
  if (/bytes/.test(measure)) return 'bytes';
  return measure === 'requests' || measure === 'hops' ? 'count' : 'ms';
}
