import type { Trigger } from './types.ts';

/** A trigger in words, as in `after 400 ms` or `when the screen is at most 640 px wide`. */
export function triggerWords(trigger: Trigger): string {
  switch (trigger.on) {
    case 'after':
      return `after ${trigger.ms} ms`;
    case 'media':
      return trigger.maxWidth !== undefined
        ? `up to ${trigger.maxWidth} px wide`
        : trigger.minWidth !== undefined
          ? `from ${trigger.minWidth} px wide`
          : 'media';
    case 'answer':
      return `when ${trigger.of} answers so`;
    case 'event':
      return `on “${trigger.name}”`;
    default:
      return trigger.on;
  }
}

/** The same as the end of a sentence, as in: fetch the dialog on the approach. */
export function triggerPhrase(trigger: Trigger): string {
  const { on } = trigger;
  if (on === 'approach' || on === 'action') return `on the ${on}`;
  if (on === 'idle' || on === 'visible') return `when ${on}`;
  return triggerWords(trigger);
}
