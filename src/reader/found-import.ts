import type { Import } from '../core/snapshot/module-types.ts';

/** An import as a script makes it, before it is known where it leads. */
export type FoundImport = Omit<Import, 'from' | 'to' | 'ordinal'> & {
  /** Made by a `require` call. */
  required?: boolean;
};
