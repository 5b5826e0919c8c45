/** A script of which a reading will soon ask what is left when only some of its exports are taken, or, of a CommonJS module, how small it gets. */
export interface LeftAsked {
  path: string;
  code: string;
  commonJs: boolean;
  /** Names of exports; null for all. */
  wanted: ReadonlySet<string> | null;
}

/** What a file of many will be asked about: what each of some texts adds to it. */
export interface AddedAsked {
  /** In the order of the list. */
  texts: readonly string[];
  /** What stands for the others where none of them is near. */
  sample: Uint8Array;
}

/** Who finds out ahead what will soon be asked for. */
export interface Foresees {
  /** What is left of scripts, and what that weighs; `mentions`: also which names it mentions. */
  left(asked: readonly LeftAsked[], mentions: boolean): void;
  added(asked: AddedAsked): void;
}
