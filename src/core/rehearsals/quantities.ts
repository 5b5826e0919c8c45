import type { Milestones } from '../metrics/readout.ts';
import type { Timeline } from '../sim/types.ts';
import { type Spread, spreadOf } from './spread.ts';
import type { Rehearsal, RehearsedMoments } from './types.ts';

/** What of a landing is both predicted and rehearsed. */
export const QUANTITIES = {
  firstContent: { name: 'First content', predicted: ({ milestones }) => milestones.firstContent },
  largestContent: { name: 'Largest content', predicted: ({ milestones }) => milestones.largestContent },
  interactive: { name: 'Interactive', predicted: ({ milestones }) => milestones.interactive },
  contentLoaded: { name: 'Document and its scripts', predicted: ({ timeline }) => timeline.moments.domContentLoaded },
  load: { name: 'Load event', predicted: ({ timeline }) => timeline.moments.load },
} as const satisfies Partial<Record<keyof RehearsedMoments, { name: string; predicted: (of: Predicted) => number }>>;

export type Quantity = keyof typeof QUANTITIES | 'wait';

/** As far as a prediction is laid beside a rehearsal. */
export interface Predicted {
  milestones: Milestones;
  timeline: Timeline;
  /** What somebody waits for each act who acts as it was rehearsed, in ms. */
  waits?: number[];
}

/** One quantity, predicted and rehearsed, in ms. */
export interface Beside {
  quantity: Quantity;
  /** For which act a wait is, from 0. */
  act?: number;
  name: string;
  /** null where the prediction never comes to it. */
  predicted: number | null;
  rehearsed: Spread | null;
  /** By how much of the rehearsed the prediction is off (positive: too late). */
  off: number | null;
}

/** The quantities of a landing, and of what was done after it, side by side. */
export function quantitiesBeside(predicted: Predicted, { runs, acts = [] }: Rehearsal): Beside[] {
  const ofLanding = (Object.keys(QUANTITIES) as (keyof typeof QUANTITIES)[]).map((quantity): Beside => {
    const { name, predicted: of } = QUANTITIES[quantity];
    return { quantity, name, ...laid(of(predicted), spreadOf(runs.map((r) => r.moments[quantity]))) };
  });
  const waits = acts.map((name, act): Beside => {
    const value = predicted.waits?.[act] ?? Number.NaN;
    const rehearsed = spreadOf(runs.map((r) => r.moments.waits?.[act] ?? null));
    return { quantity: 'wait', act, name: `Wait for ${name}`, ...laid(value, rehearsed) };
  });
  return [...ofLanding, ...waits];
}

function laid(value: number, rehearsed: Spread | null): Pick<Beside, 'predicted' | 'rehearsed' | 'off'> {
  const predicted = Number.isFinite(value) ? value : null;
  // What comes at once can’t be off by a share of itself.
  const off =
    predicted === null || rehearsed === null || rehearsed.median === 0 ? null : predicted / rehearsed.median - 1;
  return { predicted, rehearsed, off };
}

/** What one plan gains over another, predicted and rehearsed, in ms; positive: it is sooner. */
export interface Gain {
  quantity: Quantity;
  /** For which act a wait is, from 0. */
  act?: number;
  name: string;
  predicted: number | null;
  rehearsed: number | null;
  /** By how much the rehearsed gain may be off: half the spread of both. */
  give: number | null;
  /** Whether what was predicted came about: `as predicted` (right sign, within a quarter or the spread), `less`, `more`, `other way`, or `within the spread`. */
  verdict: Verdict | null;
}

export const VERDICTS = [
  'as predicted',
  'more than predicted',
  'less than predicted',
  'the other way',
  'too small to tell',
] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What is called as predicted: so much of the rehearsed gain may be missing, or be too much. */
const CLOSE = 0.25;

/** Gains of a plan over the one that it is compared with. */
export function gainsOf(before: readonly Beside[], after: readonly Beside[]): Gain[] {
  return before.map((b) => {
    const a = after.find((x) => x.quantity === b.quantity && x.act === b.act)!;
    const predicted = b.predicted === null || a.predicted === null ? null : b.predicted - a.predicted;
    const of = { quantity: b.quantity, name: b.name, ...(b.act === undefined ? {} : { act: b.act }) };
    if (b.rehearsed === null || a.rehearsed === null)
      return { ...of, predicted, rehearsed: null, give: null, verdict: null };
    const rehearsed = b.rehearsed.median - a.rehearsed.median;
    const give = (b.rehearsed.most - b.rehearsed.least + a.rehearsed.most - a.rehearsed.least) / 2;
    const verdict = predicted === null ? null : verdictOf(predicted, rehearsed, give);
    return { ...of, predicted, rehearsed, give, verdict };
  });
}

function verdictOf(predicted: number, rehearsed: number, give: number): Verdict {
  if (Math.abs(rehearsed) <= give && Math.abs(predicted) <= give) return 'too small to tell';
  const near = Math.max(give, Math.abs(rehearsed) * CLOSE);
  if (Math.abs(predicted - rehearsed) <= near) return 'as predicted';
  if (Math.sign(predicted) !== Math.sign(rehearsed)) return 'the other way';
  return Math.abs(rehearsed) > Math.abs(predicted) ? 'more than predicted' : 'less than predicted';
}
