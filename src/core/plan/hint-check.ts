import { InputError } from '../errors.ts';
import { named, refined } from '../form/form.ts';
import { HINT_FORM, type Hint, isDocumentHint } from '../vocabulary/hints.ts';
import type { TriggerKind } from '../vocabulary/triggers.ts';
import { TRIGGER_KINDS } from '../vocabulary/triggers.ts';

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
    refuse('Documents are fetched ahead at once, or on hover or focus.', 'on');
  if (kind === 'fetch priority' && (!priority || place !== 'markup'))
    refuse('A fetch priority stands in the markup and is high or low.', priority ? 'place' : 'priority');
  if (place === 'script' && !on) refuse('A hint that a script adds needs the trigger at which it does.', 'on');
  if (place === 'script' && on && !ON_LINKS.includes(on.on)) refuse(`Choose one of ${ON_LINKS.join(', ')}.`, 'on');
  if (place !== 'script' && !ofDocument && on) refuse('Only a hint that a script adds has a trigger.', 'on');
  if ((media?.minWidth ?? 0) > (media?.maxWidth ?? Number.POSITIVE_INFINITY))
    refuse('No screen is as wide as minWidth and as narrow as maxWidth.', 'media');
}

/** A hint that can be. */
export const HINT = named('hint', refined(HINT_FORM, refuseContradictions));
