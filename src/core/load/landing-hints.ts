import type { DocumentHintKind, Hint, HintPlace } from '../vocabulary/hints.ts';
import type { FetchPriority, LinkHint } from './types.ts';

/** A hint about a next document. */
export type DocumentHint = Hint & { kind: DocumentHintKind };

/** A hint that a landing's document carries, with what it means here. */
export interface AimedHint {
  hint: Hint;
  resources: number[];
  /** The links that it becomes: one for each of its files, or for each way of connecting to its origin. */
  links: LinkHint[];
}

/** What a plan's hints mean on one landing; decided once, for all that is written of it. */
export interface LandingHints {
  /** All that this landing's document carries, as decided. */
  carried: Hint[];
  /** Those about files and origins. One without files here (another realm, nothing that the route can use) isn't among them. */
  aimed: AimedHint[];
  /** Those about next documents. */
  documents: DocumentHint[];
  /** The links of each place; those by script are added by the entry, see hintsByScript. */
  links: Record<HintPlace, LinkHint[]>;
  /** Fetch priorities of tags of this document, by resource. */
  priorities: ReadonlyMap<number, FetchPriority>;
}
