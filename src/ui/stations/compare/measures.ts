import { MEASURES, type Measure, type Unit } from '../../../core/vocabulary/measures.ts';
import { count, size, time } from '../../parts/format.ts';

const WRITE: Record<Unit, (value: number) => string> = { ms: time, bytes: size, count };

/** How a figure is written. */
export function writerOf(measure: Measure): (value: number) => string {
  return WRITE[MEASURES[measure].unit];
}

/** A change in words for tables that are copied: sign, amount, better or worse. */
export function changeWords(measure: Measure, change: number): string {
  const write = writerOf(measure);
  if (!Number.isFinite(change) || write(Math.abs(change)) === write(0)) return 'same';
  return `${change < 0 ? '−' : '+'}${write(Math.abs(change))}`;
}
