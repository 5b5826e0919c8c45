/** A script of which a reading will soon ask what is left when only some of its exports are taken, or, of a CommonJS module, how small it gets. */
export interface LeftAsked {
  path: string;
  code: string;
  commonJs: boolean;
  /** Names of exports; null for all. */
  wanted: ReadonlySet<string> | null;
}
