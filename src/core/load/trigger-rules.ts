import type { Route } from '../snapshot/route-types.ts';
import type { Trigger, TriggerKind } from '../vocabulary/triggers.ts';
import { lateCalls, placeOf } from './places.ts';
import type { Action } from './types.ts';

/** How a trigger comes about for somebody who lands and does nothing. */
type Comes = 'with the code' | 'later by itself' | 'in view' | 'with an answer' | 'with an act';

const COMES: Record<TriggerKind, Comes> = {
  'at once': 'with the code',
  media: 'with the code',
  'after first paint': 'later by itself',
  idle: 'later by itself',
  after: 'later by itself',
  visible: 'in view',
  answer: 'with an answer',
  approach: 'with an act',
  action: 'with an act',
  event: 'with an act',
};

/** Whether a trigger fires as soon as the code that asks has run; on screens of other sizes one by media doesn't. */
export function comesWithCode({ on }: Trigger): boolean {
  return COMES[on] === 'with the code';
}

/** Whether a trigger fires during a landing after the code that asks has run, without anybody doing anything. */
export function comesLater({ on }: Trigger): boolean {
  return COMES[on] === 'later by itself';
}

/** Whether a trigger fires during a landing on which nobody does anything, wherever it stands. */
export function happensOnLanding(trigger: Trigger): boolean {
  return comesWithCode(trigger) || comesLater(trigger);
}

/** Whether a trigger fires without an act and without an answer: on a landing, or once what leads there is in view. */
export function comesWithoutAct({ on }: Trigger): boolean {
  return COMES[on] !== 'with an act' && COMES[on] !== 'with an answer';
}

/**
 * Whether a trigger of what a module draws fires while somebody only lands. What is on the first screen is in view as
 * soon as it is laid out, and an answer comes that the route itself asks for.
 */
export function firesOnLanding(trigger: Trigger, route: Route, module: string): boolean {
  if (happensOnLanding(trigger)) return true;
  if (COMES[trigger.on] === 'with an act') return false;
  if (!route.parts.some((p) => p.module === module && placeOf(p) === 'first screen')) return false;
  return trigger.on !== 'answer' || (route.data.some((d) => d.id === trigger.of) && !lateCalls(route).has(trigger.of));
}

/** The moment of a page that a trigger means; what needs an act or an answer begins with whoever brings these. */
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
    case 'at once':
    case 'visible':
    case 'approach':
    case 'action':
    case 'answer':
    case 'event':
      return { when: 'eval' };
  }
}
