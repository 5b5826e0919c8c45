import type { MomentView } from '../../../worker/services/visits.ts';

/** One axis for all moments of a visit: ms from the act, leads to the left. */
export interface Scale {
  width: number;
  /** ms at the left end (negative) and at the right end. */
  from: number;
  to: number;
  x(ms: number): number;
  ms(x: number): number;
}

const LEAST_LEAD = 500;
const LEAST_WAIT = 500;

/** Wide enough for every moment but the documents, whose waits are of another order: those break off at the edge. */
export function scaleOf(moments: readonly MomentView[], width: number, touch: boolean): Scale {
  const later = moments.filter((m) => m.kind !== 'landing' && m.kind !== 'document' && m.kind !== 'other');
  const long = later.flatMap((m) => [m.complete, m.wait, m.answering, m.was]).filter(Number.isFinite);
  const to = Math.max(LEAST_WAIT, ...long) * 1.08;
  // What is touched gives no lead, and needs no room for one.
  const lead = touch ? to * 0.06 : Math.max(LEAST_LEAD, ...later.map((m) => m.lead)) * 1.08;
  const from = -Math.min(lead, to * 1.2);
  const perMs = width / (to - from);
  return { width, from, to, x: (ms) => (ms - from) * perMs, ms: (x) => x / perMs + from };
}

/** Round steps for the marks on the axis, about so many. */
export function marksOf({ from, to }: Scale, about: number): number[] {
  const rough = (to - from) / about;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((f) => f * power).find((s) => s >= rough) ?? rough;
  const marks: number[] = [];
  // A mark at the very edge has no room for its words.
  const margin = (to - from) * 0.03;
  for (let ms = Math.ceil((from + margin) / step) * step; ms <= to - margin; ms += step) marks.push(ms + 0);
  return marks.includes(0) || from > 0 ? marks : [0, ...marks];
}
