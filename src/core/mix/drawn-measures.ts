import type { LandingMeasure } from '../vocabulary/measures.ts';
import type { Drawn } from './mix.ts';

/** What a drawn landing is measured by, under the names of the measures. */
export const DRAWN_MEASURES: Record<keyof Drawn, LandingMeasure> = {
  firstContent: 'first content',
  largestContent: 'largest content',
  firstScreenComplete: 'first screen',
  interactive: 'interactive',
  timeToInteractive: 'time to interactive',
  blocked: 'blocked',
};
