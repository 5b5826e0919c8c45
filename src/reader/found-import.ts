import type { Import } from '../core/snapshot/module-types.ts';

/** An import as a script makes it, before it is known where it leads. */
export type FoundImport = Omit<Import, 'from' | 'to' | 'ordinal'> & {
  /** Made by a `require` call. */
  required?: boolean;
  /** It passes on everything (`export *`). */
  passesAll?: boolean;
  /** Names that are taken of a deferred import at once; nothing else of it is used. */
  taken?: string[];
};
