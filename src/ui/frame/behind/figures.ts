import type { LandingMeasure } from '../../../core/vocabulary/measures.ts';

/** The figures that the strip shows; each unfolds. */
export type StripFigure = Extract<
  LandingMeasure,
  | 'first content'
  | 'interactive'
  | 'start bytes'
  | 'other scripts'
  | 'also fetched'
  | 'requests'
  | 'hops'
  | 'wasted bytes'
>;
