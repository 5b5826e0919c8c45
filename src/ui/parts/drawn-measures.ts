import { DRAWN_MEASURES } from '../../core/mix/drawn-measures.ts';
import type { Drawn } from '../../core/mix/mix.ts';
import { MEASURES } from '../../core/vocabulary/measures.ts';

/** What drawn landings are measured by, with the names of the measures. */
export function drawnMeasures(): { key: keyof Drawn; words: string }[] {
  return (Object.keys(DRAWN_MEASURES) as (keyof Drawn)[]).map((key) => ({
    key,
    words: MEASURES[DRAWN_MEASURES[key]].name,
  }));
}
