/** What a plan gives to the app and its server, and what it gives to a review. */
export const SHIPPED = [
  ...(['markup', 'headers', 'early-hints', 'speculation-rules', 'hint-script', 'triggers'] as const),
  ...(['manifest', 'deploy'] as const),
] as const;
export type ShippedKind = (typeof SHIPPED)[number];
export const REVIEWED = ['csv', 'report'] as const;
export const ARTEFACTS = [...SHIPPED, ...REVIEWED] as const;
export type ArtefactKind = (typeof ARTEFACTS)[number];

/** Something that is taken from a plan into the app, its server or a review. */
export interface Artefact {
  kind: ArtefactKind;
  name: string;
  /** What it is for, and how it is put to use. */
  use: string;
  file: string;
  mime: string;
  /** Empty when the plan has nothing of the kind. */
  text: string;
}

/** A time that a browser was seen to take: the middle of its runs in ms, and that with its spread in words. */
export interface SeenTime {
  ms: number;
  words: string;
}

/** What was rehearsed of a landing, as built and with the plan; null where it wasn’t. */
export interface RehearsedLanding {
  pattern: string;
  firstContent: { before: SeenTime | null; after: SeenTime | null };
  interactive: { before: SeenTime | null; after: SeenTime | null };
}
