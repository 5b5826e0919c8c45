import type { Step } from './types.ts';

/** Steps that were taken, the last one at the end, and those that were taken back since. */
export interface History {
  done: readonly Step[];
  undone: readonly Step[];
}

export const NO_HISTORY: History = { done: [], undone: [] };

/** A step is taken: what was taken back before can't be taken again. */
export function taken({ done }: History, step: Step): History {
  return { done: [...done, step], undone: [] };
}

/** The last step is taken back; null where there is none. */
export function takenBack({ done, undone }: History): { step: Step; history: History } | null {
  const step = done.at(-1);
  return step ? { step, history: { done: done.slice(0, -1), undone: [...undone, step] } } : null;
}

/** The last step that was taken back is taken again; null where there is none. */
export function takenAgain({ done, undone }: History): { step: Step; history: History } | null {
  const step = undone.at(-1);
  return step ? { step, history: { done: [...done, step], undone: undone.slice(0, -1) } } : null;
}

/** Only steps about one thing: those about others began from what isn't there any more. */
export function keeping({ done, undone }: History, keep: (step: Step) => boolean): History {
  return { done: done.filter(keep), undone: undone.filter(keep) };
}

export const isAboutReading = (step: Step): boolean => step.of === 'reading';
