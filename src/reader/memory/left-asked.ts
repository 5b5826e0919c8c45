/** A script of which a reading will soon ask what is left when only some of its exports are taken, or, of a CommonJS module, how small it gets. */
export interface LeftAsked {
  path: string;
  code: string;
  commonJs: boolean;
  /** Names of exports; null for all. */
  wanted: ReadonlySet<string> | null;
}

/** What ships of a module, of which a reading will soon ask what it weighs. */
export interface SizesAsked {
  path: string;
  text: string;
  /** Whether it will ask as well which names it mentions. */
  mentions: boolean;
}

/** What a file of many will be asked about: what each of some texts adds to it. */
export interface AddedAsked {
  /** In the order of the list. */
  texts: readonly string[];
  /** Where runs of texts that are compressed as one begin and end, in their order. */
  runs: readonly (readonly [from: number, to: number])[];
  /** What stands for the others where none of them is near. */
  sample: Uint8Array;
}

/** Who finds out ahead what will soon be asked for. */
export interface Foresees {
  /** Which rules style sheets have, by their texts. */
  sheets(texts: readonly string[]): void;
  /** What is left of scripts, and what that weighs; `mentions`: also which names it mentions. */
  left(asked: readonly LeftAsked[], mentions: boolean): void;
  /** What texts weigh alone. */
  sizes(asked: readonly SizesAsked[]): void;
  added(asked: AddedAsked): void;
}
