import { subjectOf } from '../plan/decisions.ts';
import type { Remedy } from './types.ts';

/** Several changes as one, as if they were made one after the other: where two are about the same, the later one counts. */
export function remediesTogether(words: string, remedies: readonly Remedy[]): Remedy {
  const decisions = remedies.flatMap((r, at) => {
    const later = new Set(remedies.slice(at + 1).flatMap((l) => l.withdraw ?? []));
    return r.decisions.filter((d) => !later.has(subjectOf(d)));
  });
  return { words, decisions, withdraw: remedies.flatMap((r) => r.withdraw ?? []) };
}
