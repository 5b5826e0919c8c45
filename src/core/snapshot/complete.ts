import type { Snapshot } from './types.ts';

/** Columns that snapshots kept by an earlier version of the program don't have yet. */
export type Added = Pick<Snapshot, 'links' | 'proposals' | 'base' | 'notices' | 'unusedRules' | 'sheetUses' | 'output'>;

/** What a snapshot of sources has in those columns when nothing is known. */
export const NOTHING_MORE: Added = {
  links: [],
  proposals: [],
  base: '/',
  notices: [],
  unusedRules: [],
  sheetUses: [],
  output: null,
};

/** A stored snapshot with every column of the present form. */
export function complete(stored: Omit<Snapshot, keyof Added> & Partial<Added>): Snapshot {
  return { ...NOTHING_MORE, ...stored };
}
