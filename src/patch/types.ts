/** What became of one import, or of one decision that is no matter of imports. */
export interface PatchStep {
  /** Index of the decision in the plan. */
  decision: number;
  words: string;
  /** The file that is, or has to be, edited; empty when the decision is about no file in particular. */
  path: string;
  line: number;
  state: PatchState;
  /** What was written, why it has to be written by hand, or why the file was left alone. */
  what: string;
  /** Code to write by hand; empty where the patch does it all. */
  recipe: string;
}

/** `refused`: the file isn't as it was when the app was read. */
export const PATCH_STATES = ['edited', 'by hand', 'refused', 'nothing to do'] as const;
export type PatchState = (typeof PATCH_STATES)[number];

/** What becomes of a step whose file can't be edited, from the reason why; a file that changed is told by its beginning. */
export function notOpened(reason: string): Pick<PatchStep, 'state' | 'what'> {
  return reason.startsWith('CHANGED ')
    ? { state: 'refused', what: reason.slice('CHANGED '.length) }
    : { state: 'by hand', what: reason };
}

export interface SourcePatch {
  /** One unified diff over all files, for `git apply` in the folder that was read; empty when nothing is edited. */
  diff: string;
  files: { path: string; added: number; removed: number }[];
  steps: PatchStep[];
}
