import type { CacheState } from '../vocabulary/cache-states.ts';
import type { Measure } from '../vocabulary/measures.ts';

/** The most that a landing or an action may come to, under named conditions. */
export interface Limit {
  route: string;
  /** Id of the part behind the action; without it the landing is meant. */
  action?: string;
  measure: Measure;
  /** In ms, bytes, or a count. */
  most: number;
  /** Ids of link and device. */
  link: string;
  device: string;
  cache: CacheState;
  /** Name of the plan that it was set for; without one, the app as built. */
  plan?: string;
}

/** `missing`: the app has no such route or action any more. */
export interface LimitState {
  limit: Limit;
  state: 'kept' | 'broken' | 'missing';
  /** Null when it is missing, or never comes to that. */
  value: number | null;
}
