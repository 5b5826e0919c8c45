import type { LandingMeasure } from '../vocabulary/measures.ts';
import type { LimitCause } from './causes.ts';

/** What is told of a landing that changed. */
export const TOLD_MEASURES = [
  'start bytes',
  'first content',
  'interactive',
  'requests',
  'hops',
] as const satisfies readonly LandingMeasure[];
export type ToldMeasure = (typeof TOLD_MEASURES)[number];

/** How one figure of a landing changed; null: the landing wasn't there, isn't there any more, or never comes to it. */
export interface FigureChange {
  measure: ToldMeasure;
  before: number | null;
  after: number | null;
}

/** What an app's change did to one landing. */
export interface LandingChange {
  route: string;
  state: 'added' | 'gone' | 'changed';
  /** Those that changed; of landings that came or went, all. */
  figures: FigureChange[];
  /** Imports that bring more than before, and (as they were) those that brought more than now. */
  brings: LimitCause[];
  brought: LimitCause[];
}
