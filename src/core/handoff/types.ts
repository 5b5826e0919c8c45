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
