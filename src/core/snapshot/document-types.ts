import type { Of } from '../form/form.ts';
import { assumed, assumedOrNull, partial, record } from '../form/records.ts';
import { BYTES, choice, FLAG, MILLIS, orNull, TEXT } from '../form/values.ts';
import { EVIDENCE } from './route-types.ts';

export const SCRIPT_PLACEMENTS = [
  'blocking',
  'async',
  'defer',
  'module',
  'end of body',
  'after load',
  'inlined',
] as const;
export type ScriptPlacement = (typeof SCRIPT_PLACEMENTS)[number];

/** A script that is not part of the module graph: a third-party or classic one. */
export const CLASSIC_SCRIPT = record({
  id: TEXT,
  name: TEXT,
  address: TEXT,
  /** Compressed; null where nobody knows. */
  bytes: orNull(BYTES),
  serverMs: MILLIS,
  evaluationMs: MILLIS,
  placement: choice(SCRIPT_PLACEMENTS),
  evidence: assumed(orNull(EVIDENCE), null),
});
export type ClassicScript = Of<typeof CLASSIC_SCRIPT>;

/** What a person said of a classic script. */
export const SCRIPT_CHANGE = partial({ bytes: BYTES, serverMs: MILLIS, evaluationMs: MILLIS, address: TEXT });
export type ScriptChange = Of<typeof SCRIPT_CHANGE>;

/** A link in a document's head that asks for something ahead. */
export const DOCUMENT_LINK = record({
  realm: TEXT,
  rel: choice(['preload', 'modulepreload', 'prefetch', 'preconnect']),
  address: TEXT,
  /** What it is asked for as; empty when the link doesn't say. */
  as: TEXT,
  crossorigin: FLAG,
  priority: choice(['high', 'low', 'auto']),
  /** Compressed size of the file that it names, where that file was found. */
  bytes: orNull(BYTES),
  evidence: assumedOrNull(EVIDENCE, { path: '', line: 1 }),
});
export type DocumentLink = Of<typeof DOCUMENT_LINK>;
