import type { Import } from '../core/snapshot/module-types.ts';

/** An import as a script makes it, before it is known where it leads. */
export type FoundImport = Omit<Import, 'from' | 'to' | 'ordinal'> & {
  /** Made by a `require` call. */
  required?: boolean;
  /** It passes on everything (`export *`). */
  passesAll?: boolean;
  /** It only passes names on as they are imported, so that those who use them can import them past this module. */
  passesOn?: true;
  /** What keeps it from being deferred is that this name of it is handed on, which a component may be. */
  component?: string;
  /** Names that are taken of a deferred import at once; nothing else of it is used. */
  taken?: string[];
};
