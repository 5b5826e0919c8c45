import { time } from './format.ts';

/** A mark of a time axis in words: `0 s`, `250 ms`, `1.5 s`. */
export function tickWords(ms: number): string {
  if (ms === 0) return '0 s';
  return ms >= 1000 ? `${ms / 1000} s` : time(ms);
}
