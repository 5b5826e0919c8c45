import type { Trigger, TriggerKind } from '../../core/vocabulary/triggers.ts';

/** Moments of a fetch that can be chosen for any split point, in this order; null: it needs more than a click to tell. */
const OFFERED: Record<TriggerKind, Trigger | null> = {
  'at once': { on: 'at once' },
  'after first paint': { on: 'after first paint' },
  idle: { on: 'idle' },
  visible: { on: 'visible' },
  approach: { on: 'approach' },
  action: { on: 'action' },
  after: null,
  media: null,
  answer: null,
  event: null,
};

export const TRIGGERS: Trigger[] = Object.values(OFFERED).filter((t) => t !== null);
