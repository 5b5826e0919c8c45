import type { SplitSettings } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Trigger } from '../core/vocabulary/triggers.ts';
import type { FileEdits } from './file-edits.ts';
import type { Wrapper } from './wrapper.ts';

/** What the edits of one plan share. */
export interface PatchContext {
  snapshot: Snapshot;
  wrapper: Wrapper | null;
  settings: ReadonlyMap<string, SplitSettings>;
  /** When split points are fetched, by path. */
  triggers: ReadonlyMap<string, Trigger>;
  /** Edits of a file by its path; null when its source isn't known or isn't as it was. */
  edits(path: string): FileEdits | null;
}

/** Changes that are checked before any of them is made, so that a file is never left half edited. */
export type Change = () => void;

export type Found = { change: Change; done: string } | { reason: string };

/** The path of the module that an import leads to. */
export function targetOf({ snapshot }: PatchContext, item: Import): string {
  return snapshot.modules[item.to].path;
}
