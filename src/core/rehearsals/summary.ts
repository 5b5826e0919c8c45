import { spreadOf } from './spread.ts';
import type { Rehearsal } from './types.ts';

/** What lists say of a rehearsal: what was run, and when it was interactive (median, in ms). */
export interface RehearsalSummary
  extends Pick<Rehearsal, 'plan' | 'pattern' | 'address' | 'act' | 'conditions' | 'at'> {
  interactive: number | null;
}

/** The summary of a rehearsal, which itself holds very much. */
export function summaryOf({ plan, pattern, address, act, conditions, at, runs }: Rehearsal): RehearsalSummary {
  const interactive = spreadOf(runs.map((r) => r.moments.interactive))?.median ?? null;
  return { ...{ plan, pattern, address, conditions, at, interactive }, ...(act === undefined ? {} : { act }) };
}
