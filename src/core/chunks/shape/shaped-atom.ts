import type { Atom } from '../atoms.ts';

/** An atom on its way to becoming a chunk. */
export interface ShapedAtom extends Atom {
  /** Minified bytes of its modules. */
  bytes: number;
  /** Place of its first module in the order of evaluation. */
  first: number;
  /** Not to be merged with anything: kept apart, or gathered by name. */
  fixed: boolean;
}
