import type { RequestRecord } from './types.ts';

/** The instants of a request, one after the other. */
const INSTANTS = ['discovered', 'queued', 'released', 'sent', 'reached', 'served', 'firstByte', 'end'] as const;
export type Instant = (typeof INSTANTS)[number];

/** Notes that a request has come so far. What is yet to come is at the same instant until it comes, so that its instants are always in order. */
export function reach(record: RequestRecord, instant: Instant, now: number): void {
  for (const each of INSTANTS.slice(INSTANTS.indexOf(instant))) record[each] = now;
}

/** Ends a request that has come so far: what was still to come never does, and it waited for that until now. */
export function endAfter(record: RequestRecord, last: Instant, now: number): void {
  const next = INSTANTS[INSTANTS.indexOf(last) + 1];
  reach(record, next ?? 'end', now);
}
