import type { ReadingState } from '../../server/reading-jobs.ts';
import { api } from './api.ts';

const POLL_MS = 200;

/** Follows a reading that was started to its end; `told` hears how far it is. */
export async function follow(
  started: Promise<ReadingState>,
  onProgress: (state: ReadingState) => void,
): Promise<ReadingState> {
  let state = await started;
  while (state.state === 'reading') {
    onProgress(state);
    await new Promise((wake) => setTimeout(wake, POLL_MS));
    state = await api.reading(state.id);
  }
  return state;
}

/** How far a reading is, in words. */
export function progressWords({ read, known, ahead }: ReadingState): string {
  if (ahead > 0) return `Waiting for its turn: ${ahead === 1 ? 'it is the next' : `${ahead - 1} come before it`}`;
  return known === 0 ? 'Finding the entries' : `${read} of ${known} known files read`;
}

/** What went wrong, in words; null when nothing did. */
export function troubleWords({ problem }: ReadingState): string | null {
  return problem && `${problem.title}. ${problem.detail}${typeof problem.at === 'string' ? ` (${problem.at})` : ''}`;
}
