import type { Failed, Notice, Unresolved } from '../../core/snapshot/types.ts';

/** What a reading has to tell besides the modules: nothing is left out in silence. */
export interface Findings {
  unresolved: Unresolved[];
  failed: Failed[];
  notices: Notice[];
}
