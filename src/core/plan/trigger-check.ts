import { amount, type Fields, object, oneOf, text } from '../text/fields.ts';
import type { Trigger } from './types.ts';

const SIMPLE_TRIGGERS = ['at once', 'after first paint', 'idle', 'visible', 'approach', 'action'] as const;

/** Checks a trigger that came from outside; throws InputError naming the field. */
export function checkTrigger(value: unknown, at: string): Trigger {
  const item = object(value, at);
  const on = oneOf(item.on, [...SIMPLE_TRIGGERS, 'after', 'media', 'answer', 'event'] as const, `${at}.on`);
  switch (on) {
    case 'after':
      return { on, ms: amount(item.ms, `${at}.ms`, 3_600_000) };
    case 'media':
      return { on, ...width(item, 'minWidth', at), ...width(item, 'maxWidth', at) };
    case 'answer':
      return { on, of: text(item.of, `${at}.of`) };
    case 'event':
      return { on, name: text(item.name, `${at}.name`) };
    default:
      return { on };
  }
}

export function width(item: Fields, name: 'minWidth' | 'maxWidth', at: string): Fields {
  return item[name] === undefined ? {} : { [name]: amount(item[name], `${at}.${name}`, 100_000) };
}
