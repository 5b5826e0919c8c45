import { kilobytes, milliseconds } from '../text/amounts.ts';
import { MEASURES, type Unit } from '../vocabulary/measures.ts';
import type { Limit } from './types.ts';

/** A limit in words: what it is about, without the amount. */
export function limitSubject({ route, action, measure }: Limit): string {
  return `${route}${action === undefined ? '' : ` › ${action}`}: ${MEASURES[measure].name}`;
}

/** A limit in words, with its amount. */
export function limitWords(limit: Limit): string {
  return `${limitSubject(limit)} at most ${amountWords(limit.measure, limit.most)}`;
}

const WRITE: Record<Unit, (value: number) => string> = { ms: milliseconds, bytes: kilobytes, count: String };

/** An amount with its unit: kB of 1,000 bytes, ms, or a count; `never` for null. */
export function amountWords(measure: Limit['measure'], value: number | null): string {
  return value === null ? 'never' : WRITE[MEASURES[measure].unit](value);
}
