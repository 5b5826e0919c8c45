import type { Trigger } from '../plan/types.ts';
import type { Action } from './types.ts';

/** The moment of a landing that a trigger means, for triggers that fire on one. */
export function momentOf(trigger: Trigger): Omit<Action, 'do'> {
  switch (trigger.on) {
    case 'after first paint':
      return { when: 'paint' };
    case 'idle':
      return { when: 'quiet' };
    case 'after':
      return { when: 'timer', delayMs: trigger.ms };
    case 'media':
      return { when: 'eval', media: { minWidth: trigger.minWidth, maxWidth: trigger.maxWidth } };
    default:
      return { when: 'eval' };
  }
}
