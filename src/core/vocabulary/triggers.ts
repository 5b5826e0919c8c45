import { amount, type Fields, object, oneOf, text } from '../text/fields.ts';

/** When something begins. Times in ms, widths in CSS pixels. */
export type Trigger =
  | { on: 'at once' }
  | { on: 'after first paint' }
  | { on: 'idle' }
  | { on: 'visible' }
  | { on: 'approach' }
  | { on: 'action' }
  | { on: 'after'; ms: number }
  | { on: 'media'; maxWidth?: number; minWidth?: number }
  | { on: 'answer'; of: string }
  | { on: 'event'; name: string };

export type TriggerKind = Trigger['on'];
type Of<K extends TriggerKind> = Extract<Trigger, { on: K }>;

/** All that is the same wherever a kind of trigger is used. */
interface TriggerEntry<K extends TriggerKind> {
  /** In words, as in `after 400 ms`. */
  words(trigger: Of<K>): string;
  /** The same as the end of a sentence, as in: fetch the dialog on the approach. */
  phrase(trigger: Of<K>): string;
  /** How it is written in commands, such as `idle` or `after:MS`; null where there is no written form. */
  written: string | null;
  /** Reads what stands behind the colon of the written form, if anything; null where that is nothing. */
  read(value: string | undefined): Of<K> | null;
  /** Checks one that came from outside; throws InputError naming the field. */
  check(item: Fields, at: string): Of<K>;
}

type PlainKind = { [K in TriggerKind]: { on: K } extends Of<K> ? K : never }[Exclude<TriggerKind, 'media'>];

/** A kind that says all by its name. */
function plain<K extends PlainKind>(on: K, phrase: string): TriggerEntry<K> {
  const trigger = { on } as Of<K>;
  return {
    words: () => on,
    phrase: () => phrase,
    written: on,
    read: (value) => (value === undefined ? trigger : null),
    check: () => trigger,
  };
}

const unwritten = { written: null, read: () => null };

function mediaWords({ minWidth, maxWidth }: { minWidth?: number; maxWidth?: number }): string {
  if (maxWidth !== undefined) return `up to ${maxWidth} px wide`;
  return minWidth === undefined ? 'media' : `from ${minWidth} px wide`;
}

const ENTRIES: { [K in TriggerKind]: TriggerEntry<K> } = {
  'at once': plain('at once', 'at once'),
  'after first paint': plain('after first paint', 'after first paint'),
  idle: plain('idle', 'when idle'),
  visible: plain('visible', 'when visible'),
  approach: plain('approach', 'on the approach'),
  action: plain('action', 'on the action'),
  after: {
    words: ({ ms }) => `after ${ms} ms`,
    phrase: ({ ms }) => `after ${ms} ms`,
    written: 'after:MS',
    read: (value) => (/^\d+$/.test(value ?? '') ? { on: 'after', ms: Number(value) } : null),
    check: (item, at) => ({ on: 'after', ms: amount(item.ms, `${at}.ms`, 3_600_000) }),
  },
  media: {
    words: mediaWords,
    phrase: mediaWords,
    ...unwritten,
    check: (item, at) => ({ on: 'media', ...width(item, 'minWidth', at), ...width(item, 'maxWidth', at) }),
  },
  answer: {
    words: ({ of }) => `when ${of} answers so`,
    phrase: ({ of }) => `when ${of} answers so`,
    ...unwritten,
    check: (item, at) => ({ on: 'answer', of: text(item.of, `${at}.of`) }),
  },
  event: {
    words: ({ name }) => `on “${name}”`,
    phrase: ({ name }) => `on “${name}”`,
    ...unwritten,
    check: (item, at) => ({ on: 'event', name: text(item.name, `${at}.name`) }),
  },
};

/** All kinds, in the order in which they are listed. */
export const TRIGGER_KINDS = Object.keys(ENTRIES) as TriggerKind[];

/** The written forms, as in `idle` and `after:MS`. */
export const WRITTEN_TRIGGERS = TRIGGER_KINDS.flatMap((on) => ENTRIES[on].written ?? []);

/** A trigger in words, as in `after 400 ms` or `up to 640 px wide`. */
export function triggerWords(trigger: Trigger): string {
  return entryOf(trigger).words(trigger);
}

/** The same as the end of a sentence, as in: fetch the dialog on the approach. */
export function triggerPhrase(trigger: Trigger): string {
  return entryOf(trigger).phrase(trigger);
}

/** Reads a written trigger such as `idle` or `after:2000`; null where it is none. */
export function parseTrigger(written: string): Trigger | null {
  const [on, value] = written.split(':');
  const kind = TRIGGER_KINDS.find((k) => k === on);
  return kind ? ENTRIES[kind].read(value) : null;
}

/** Checks a trigger that came from outside; throws InputError naming the field. */
export function checkTrigger(value: unknown, at: string): Trigger {
  const item = object(value, at);
  return ENTRIES[oneOf(item.on, TRIGGER_KINDS, `${at}.on`)].check(item, at);
}

/** A width in CSS pixels, where there is one; throws InputError naming the field. */
export function width(item: Fields, name: 'minWidth' | 'maxWidth', at: string): Fields {
  return item[name] === undefined ? {} : { [name]: amount(item[name], `${at}.${name}`, 100_000) };
}

/** The entry of a trigger's own kind. */
function entryOf<K extends TriggerKind>({ on }: { on: K }): TriggerEntry<K> {
  return ENTRIES[on];
}
