import type { Trigger } from '../../core/plan/types.ts';

/** Moments of a fetch that can be chosen for any split point. */
export const TRIGGERS: Trigger[] = [
  { on: 'at once' },
  { on: 'after first paint' },
  { on: 'idle' },
  { on: 'visible' },
  { on: 'approach' },
  { on: 'action' },
];
