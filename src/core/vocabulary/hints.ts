import type { Of } from '../form/form.ts';
import { MARK, optional, record, variants } from '../form/records.ts';
import { choice, FLAG, listOf, TEXT } from '../form/values.ts';
import { MEDIA, TRIGGER } from './triggers.ts';

/** What a hint aims at: never a chunk's file name, so that it survives another way of cutting. */
const HINT_TARGET = variants('kind', {
  'split point': record({ module: TEXT }),
  route: record({ pattern: TEXT }),
  asset: record({ address: TEXT }),
  origin: record({ origin: TEXT }),
});
export type HintTarget = Of<typeof HINT_TARGET>;

interface HintEntry {
  /**
   * What carries it: a link that brings files (its kind is the link's `rel`, HTML), one that only connects, an attribute
   * of a tag that the document has already, or a rule about next documents (speculation rules).
   */
  by: 'link' | 'connection' | 'attribute' | 'rule';
  /** What it can aim at. */
  targets: readonly HintTarget['kind'][];
}

export const HINTS = {
  preload: { by: 'link', targets: ['split point', 'route', 'asset'] },
  modulepreload: { by: 'link', targets: ['split point', 'route'] },
  prefetch: { by: 'link', targets: ['split point', 'route', 'asset'] },
  preconnect: { by: 'connection', targets: ['origin'] },
  'fetch priority': { by: 'attribute', targets: ['asset'] },
  'prefetch document': { by: 'rule', targets: ['route'] },
  'prepare document': { by: 'rule', targets: ['route'] },
} as const satisfies Record<string, HintEntry>;

export type HintKind = keyof typeof HINTS;
type KindBy<By extends HintEntry['by']> = {
  [K in HintKind]: (typeof HINTS)[K]['by'] extends By ? K : never;
}[HintKind];
/** Hints that are links to files. */
export type LinkHintKind = KindBy<'link'>;
/** Hints about next documents. */
export type DocumentHintKind = KindBy<'rule'>;

export const HINT_KINDS = Object.keys(HINTS) as HintKind[];

/** Whether a hint is about a next document. */
export function isDocumentHint(kind: HintKind): kind is DocumentHintKind {
  return HINTS[kind].by === 'rule';
}

/** Whether a hint is a link that brings files. */
export function isLinkHint(kind: HintKind): kind is LinkHintKind {
  return HINTS[kind].by === 'link';
}

/** In the document, in a header of its answer, in an early one (RFC 8297), or added by script at a trigger. */
export const PLACES = {
  markup: 'in the markup',
  header: 'in a header',
  early: 'as early hint',
  script: 'by script',
} as const;
export type HintPlace = keyof typeof PLACES;
export const HINT_PLACES = Object.keys(PLACES) as HintPlace[];

/** Types of files, as links name them (`as`, HTML). */
export const HINT_TYPES = ['script', 'style', 'image', 'font', 'fetch'] as const;

/** A hint; whether what it says fits together is checked by `HINT` of the plan. */
export const HINT_FORM = record({
  kind: choice(HINT_KINDS),
  place: choice(HINT_PLACES),
  target: HINT_TARGET,
  /** Routes whose document carries it; empty = every route that can use it. */
  routes: listOf(TEXT),
  /** For the place `script`, and for documents (`approach`: once the pointer rests on the link): when it begins. */
  on: optional(TRIGGER),
  /** For `preload`, `modulepreload` and `fetch priority`. */
  priority: optional(choice(['high', 'low'])),
  /** Instead of what fits the target: a preload that doesn't fit isn't used by whoever asks for the file. */
  as: optional(choice(HINT_TYPES)),
  crossorigin: optional(FLAG),
  /** Only where the screen is like that. */
  media: optional(MEDIA),
  /** Left out for visitors who asked their browser to save data. */
  notForDataSaver: MARK,
});
export type Hint = Of<typeof HINT_FORM>;
