import type { Saving } from './types.ts';

/**
 * Where saving a plan stands; a plan that isn't among them is saved. `unsaved`: decided upon since. `sending`: on its way.
 * `sending, changed`: decided upon again meanwhile. `failed`: it could not be sent; it is tried again. `conflict`: somebody
 * else was faster, and the person hasn't chosen what stays.
 */
export type PlanSave = 'unsaved' | 'sending' | 'sending, changed' | 'failed' | 'conflict';

export type Saves = ReadonlyMap<string, PlanSave>;

export type SaveEvent = 'decided' | 'sent' | 'confirmed' | 'failed' | 'refused' | 'settled';

type Next = PlanSave | 'saved';

/** What each event makes of each state. A conflict is ended only by the person's choice, or by trying again (`sent`). */
const NEXT: Record<Next, Record<SaveEvent, Next>> = {
  saved: {
    decided: 'unsaved',
    sent: 'sending',
    confirmed: 'saved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
  unsaved: {
    decided: 'unsaved',
    sent: 'sending',
    confirmed: 'unsaved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
  sending: {
    decided: 'sending, changed',
    sent: 'sending',
    confirmed: 'saved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
  'sending, changed': {
    decided: 'sending, changed',
    sent: 'sending',
    confirmed: 'unsaved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
  failed: {
    decided: 'unsaved',
    sent: 'sending',
    confirmed: 'saved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
  conflict: {
    decided: 'conflict',
    sent: 'sending',
    confirmed: 'saved',
    failed: 'failed',
    refused: 'conflict',
    settled: 'saved',
  },
};

/** The states after something happened to a plan. */
export function after(saves: Saves, planId: string, event: SaveEvent): Saves {
  const next = NEXT[saves.get(planId) ?? 'saved'][event];
  const changed = new Map(saves);
  if (next === 'saved') changed.delete(planId);
  else changed.set(planId, next);
  return changed;
}

/** What is told of all plans together. */
export function overall(saves: Saves): Saving {
  const states = [...saves.values()];
  if (states.some((s) => s === 'failed' || s === 'conflict')) return 'failed';
  return states.length > 0 ? 'saving' : 'saved';
}
