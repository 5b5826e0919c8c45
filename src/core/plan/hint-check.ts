import { InputError } from '../errors.ts';
import { type Fields, flag, list, object, oneOf, text } from '../text/fields.ts';
import {
  HINT_KINDS,
  HINT_PLACES,
  HINT_TYPES,
  type Hint,
  type HintTarget,
  isDocumentHint,
} from '../vocabulary/hints.ts';
import type { TriggerKind } from '../vocabulary/triggers.ts';
import { checkTrigger, TRIGGER_KINDS, width } from '../vocabulary/triggers.ts';

/** Checks a hint that came from outside; throws InputError naming the field. */
export function checkHint(value: unknown, at: string): Hint {
  const item = object(value, at);
  const hint: Hint = {
    kind: oneOf(item.kind, HINT_KINDS, `${at}.kind`),
    place: oneOf(item.place, HINT_PLACES, `${at}.place`),
    target: checkTarget(item.target, `${at}.target`),
    routes: list(item.routes, `${at}.routes`).map((r, i) => text(r, `${at}.routes[${i}]`)),
    ...(item.on === undefined ? {} : { on: checkTrigger(item.on, `${at}.on`) }),
    ...(item.priority === undefined
      ? {}
      : { priority: oneOf(item.priority, ['high', 'low'] as const, `${at}.priority`) }),
    ...(item.as === undefined ? {} : { as: oneOf(item.as, HINT_TYPES, `${at}.as`) }),
    ...(item.crossorigin === undefined ? {} : { crossorigin: flag(item.crossorigin, `${at}.crossorigin`) }),
    ...(item.media === undefined ? {} : { media: checkMedia(item.media, `${at}.media`) }),
    ...(item.notForDataSaver === undefined || !flag(item.notForDataSaver, `${at}.notForDataSaver`)
      ? {}
      : { notForDataSaver: true }),
  };
  refuseContradictions(hint, at);
  return hint;
}

/** Triggers at which a script can add a link: what depends on time, the screen, or what leads there. */
const ADDS_LINKS: Record<TriggerKind, boolean> = {
  'at once': true,
  'after first paint': true,
  idle: true,
  after: true,
  visible: true,
  approach: true,
  action: false,
  media: false,
  answer: false,
  event: false,
};
const ON_LINKS = TRIGGER_KINDS.filter((on) => ADDS_LINKS[on]);

function refuseContradictions({ kind, place, on, priority, media }: Hint, at: string): void {
  const refuse = (detail: string, field: string) => {
    throw new InputError('A hint that can’t be', detail, `${at}.${field}`);
  };
  const ofDocument = isDocumentHint(kind);
  if (ofDocument && place !== 'markup') refuse('Rules about documents stand in the markup.', 'place');
  if (ofDocument && on && on.on !== 'at once' && on.on !== 'approach')
    refuse('Documents are fetched ahead at once or on the approach.', 'on');
  if (kind === 'fetch priority' && (!priority || place !== 'markup'))
    refuse('A fetch priority stands in the markup and is high or low.', priority ? 'place' : 'priority');
  if (place === 'script' && !on) refuse('A hint that a script adds needs the trigger at which it does.', 'on');
  if (place === 'script' && on && !ON_LINKS.includes(on.on)) refuse(`Choose one of ${ON_LINKS.join(', ')}.`, 'on');
  if (place !== 'script' && !ofDocument && on) refuse('Only a hint that a script adds has a trigger.', 'on');
  if ((media?.minWidth ?? 0) > (media?.maxWidth ?? Number.POSITIVE_INFINITY))
    refuse('No screen is as wide as minWidth and as narrow as maxWidth.', 'media');
}

function checkMedia(value: unknown, at: string): Fields {
  const item = object(value, at);
  return { ...width(item, 'minWidth', at), ...width(item, 'maxWidth', at) };
}

function checkTarget(value: unknown, at: string): HintTarget {
  const item = object(value, at);
  const kind = oneOf(item.kind, ['split point', 'route', 'asset', 'origin'] as const, `${at}.kind`);
  switch (kind) {
    case 'split point':
      return { kind, module: text(item.module, `${at}.module`) };
    case 'route':
      return { kind, pattern: text(item.pattern, `${at}.pattern`) };
    case 'asset':
      return { kind, address: text(item.address, `${at}.address`) };
    case 'origin':
      return { kind, origin: text(item.origin, `${at}.origin`) };
  }
}
