/** What can be wrong with the database file as a whole. */
export type StoreFault =
  /** Its content isn't what was written: cut, overwritten, a fault of the disk. */
  | 'damaged'
  /** It is no database of this program. */
  | 'foreign'
  /** A newer version of this program made it. */
  | 'newer'
  /** It was deleted, moved or replaced since it was opened. */
  | 'gone';

/** The database can't be used as it is; nothing of it was changed. */
export class StoreTrouble extends Error {
  constructor(
    readonly fault: StoreFault,
    /** What was found, as a sentence. */
    readonly found: string,
  ) {
    super(found);
  }
}
