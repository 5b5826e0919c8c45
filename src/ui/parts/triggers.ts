import { InputError } from '../../core/errors.ts';
import { TRIGGER, type Trigger, type TriggerKind } from '../../core/vocabulary/triggers.ts';

/** What has to be said of a moment before it can be chosen. */
export interface AskedMoment {
  on: TriggerKind;
  /** What it is called in a list of such moments. */
  words: string;
  fields: readonly { key: string; label: string; isNumber: boolean; mayBeEmpty?: true }[];
}

/** Moments of a fetch that can be chosen for any split point, in this order: at once, or once it is said which. */
const OFFERED: Record<TriggerKind, Trigger | Omit<AskedMoment, 'on'>> = {
  'at once': { on: 'at once' },
  'after first paint': { on: 'after first paint' },
  idle: { on: 'idle' },
  visible: { on: 'visible' },
  approach: { on: 'approach' },
  action: { on: 'action' },
  after: {
    words: 'after a time',
    fields: [{ key: 'ms', label: 'ms after its landing or move', isNumber: true }],
  },
  event: {
    words: 'on an event of the app',
    fields: [{ key: 'name', label: 'the event’s name', isNumber: false }],
  },
  media: {
    words: 'on screens of a width',
    fields: [
      { key: 'minWidth', label: 'from, in px', isNumber: true, mayBeEmpty: true },
      { key: 'maxWidth', label: 'up to, in px', isNumber: true, mayBeEmpty: true },
    ],
  },
  answer: {
    words: 'when data answers so',
    fields: [{ key: 'of', label: 'the data that answers', isNumber: false }],
  },
};

const isPlain = (offer: Trigger | Omit<AskedMoment, 'on'>): offer is Trigger => 'on' in offer;

export const TRIGGERS: Trigger[] = Object.values(OFFERED).filter(isPlain);

/** Moments of which something has to be said first. */
export const ASKED_MOMENTS: AskedMoment[] = Object.entries(OFFERED).flatMap(([on, offer]) =>
  isPlain(offer) ? [] : [{ on: on as TriggerKind, ...offer }],
);

/** The moment that is meant by what was written of it; in words what is wrong otherwise. */
export function momentFrom(asked: AskedMoment, written: Readonly<Record<string, string>>): Trigger | string {
  const said: Record<string, unknown> = { on: asked.on };
  for (const { key, label, isNumber, mayBeEmpty } of asked.fields) {
    const text = (written[key] ?? '').trim();
    if (text === '' && !mayBeEmpty) return `Say ${label}.`;
    if (text !== '') said[key] = isNumber ? Number(text) : text;
  }
  if (asked.fields.every(({ key }) => said[key] === undefined))
    return `Say one of these: ${asked.fields.map((f) => f.label).join('; ')}.`;
  try {
    return TRIGGER.check(said, 'moment');
  } catch (error) {
    // The check names fields as files have them.
    if (error instanceof InputError)
      return error.detail.replace(
        /^moment\.(\w+)/,
        (_, key) => `“${asked.fields.find((f) => f.key === key)?.label ?? key}”`,
      );
    throw error;
  }
}
