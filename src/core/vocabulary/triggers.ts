import { named, type Of } from '../form/form.ts';
import { optional, record, variants } from '../form/records.ts';
import { amountUpTo, PIXELS, TEXT } from '../form/values.ts';

/** What the screen has to be like. */
export const MEDIA = record({ minWidth: optional(PIXELS), maxWidth: optional(PIXELS) });
export type Media = Of<typeof MEDIA>;

const NOTHING_ELSE = record({});

/** When something begins. Times in ms, widths in CSS pixels. */
export const TRIGGER = named(
  'trigger',
  variants('on', {
    'at once': NOTHING_ELSE,
    'after first paint': NOTHING_ELSE,
    idle: NOTHING_ELSE,
    visible: NOTHING_ELSE,
    approach: NOTHING_ELSE,
    action: NOTHING_ELSE,
    after: record({ ms: amountUpTo(3_600_000) }),
    media: MEDIA,
    answer: record({ of: TEXT }),
    event: record({ name: TEXT }),
  }),
);
export type Trigger = Of<typeof TRIGGER>;

export type TriggerKind = Trigger['on'];
type OfKind<K extends TriggerKind> = Extract<Trigger, { on: K }>;

/** All that is the same wherever a kind of trigger is used. */
interface TriggerEntry<K extends TriggerKind> {
  /** In words, as in `after 400 ms`. */
  words(trigger: OfKind<K>): string;
  /** The same as the end of a sentence, as in: fetch the dialog on hover or focus. */
  phrase(trigger: OfKind<K>): string;
  /** How it is written in commands, such as `idle` or `after:MS`; null where there is no written form. */
  written: string | null;
  /** Reads what stands behind the colon of the written form, if anything; null where that is nothing. */
  read(value: string | undefined): OfKind<K> | null;
}

type PlainKind = { [K in TriggerKind]: { on: K } extends OfKind<K> ? K : never }[Exclude<TriggerKind, 'media'>];

/** A kind that says all by its name; in the words that the trade has for it. */
function plain<K extends PlainKind>(on: K, words: string, phrase = words): TriggerEntry<K> {
  const trigger = { on } as OfKind<K>;
  return {
    words: () => words,
    phrase: () => phrase,
    written: on,
    read: (value) => (value === undefined ? trigger : null),
  };
}

const unwritten = { written: null, read: () => null };

function mediaWords({ minWidth, maxWidth }: Media): string {
  if (maxWidth !== undefined) return `up to ${maxWidth} px wide`;
  return minWidth === undefined ? 'media' : `from ${minWidth} px wide`;
}

const ENTRIES: { [K in TriggerKind]: TriggerEntry<K> } = {
  'at once': plain('at once', 'at once'),
  'after first paint': plain('after first paint', 'after first paint'),
  idle: plain('idle', 'when idle'),
  visible: plain('visible', 'in view', 'when in view'),
  approach: plain('approach', 'on hover or focus'),
  action: plain('action', 'on the action'),
  after: {
    words: ({ ms }) => `after ${ms} ms`,
    phrase: ({ ms }) => `after ${ms} ms`,
    written: 'after:MS',
    read: (value) => (/^\d+$/.test(value ?? '') ? { on: 'after', ms: Number(value) } : null),
  },
  media: {
    words: mediaWords,
    phrase: mediaWords,
    ...unwritten,
  },
  answer: {
    words: ({ of }) => `when ${of} answers so`,
    phrase: ({ of }) => `when ${of} answers so`,
    ...unwritten,
  },
  event: {
    words: ({ name }) => `on “${name}”`,
    phrase: ({ name }) => `on “${name}”`,
    ...unwritten,
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

/** The same as the end of a sentence, as in: fetch the dialog on hover or focus. */
export function triggerPhrase(trigger: Trigger): string {
  return entryOf(trigger).phrase(trigger);
}

/** Reads a written trigger such as `idle` or `after:2000`; null where it is none. */
export function parseTrigger(written: string): Trigger | null {
  const [on, value] = written.split(':');
  const kind = TRIGGER_KINDS.find((k) => k === on);
  return kind ? ENTRIES[kind].read(value) : null;
}

/** The entry of a trigger's own kind. */
function entryOf<K extends TriggerKind>({ on }: { on: K }): TriggerEntry<K> {
  return ENTRIES[on];
}
