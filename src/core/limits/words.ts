import { unitOf } from '../compare/measures.ts';
import type { Limit } from './types.ts';

const NAMES: Partial<Record<Limit['measure'], string>> = {
  'start bytes': 'start',
  'unused bytes': 'not used at start',
  'wasted bytes': 'waste',
};

/** A limit in words: what it is about, without the amount. */
export function limitSubject({ route, action, measure }: Limit): string {
  return `${route}${action === undefined ? '' : ` › ${action}`}: ${NAMES[measure] ?? measure}`;
}

export function limitWords(limit: Limit): string {
  return `${limitSubject(limit)} at most ${amountWords(limit.measure, limit.most)}`;
}

/** An amount with its unit: kB of 1,000 bytes, ms, or a count. */
export function amountWords(measure: Limit['measure'], value: number | null): string {
  if (value === null) return 'never';
  const unit = unitOf(measure);
  if (unit === 'count') return String(value);
  return unit === 'bytes' ? `${Math.round(value / 100) / 10} kB` : `${Math.round(value)} ms`;
}
