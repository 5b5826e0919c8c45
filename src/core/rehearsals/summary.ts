import type { Decision } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Measure } from '../vocabulary/measures.ts';
import { type Spread, spreadOf } from './spread.ts';
import type { Rehearsal, RehearsedMoments, RehearsedRun } from './types.ts';

/** What of a rehearsal lists and reports say. */
const SUMMED = {
  firstContent: ({ firstContent }) => firstContent,
  largestContent: ({ largestContent }) => largestContent,
  interactive: ({ interactive }) => interactive,
  /** For the act, where it was a single one. */
  wait: ({ waits = [] }) => (waits.length === 1 ? waits[0] : null),
} as const satisfies Record<string, (moments: RehearsedMoments) => number | null>;
export type Summed = keyof typeof SUMMED;

/** One of it over all runs; null where no run came to it. */
export function spreadIn(runs: readonly RehearsedRun[], of: Summed): Spread | null {
  return spreadOf(runs.map((r) => SUMMED[of](r.moments)));
}

/** What a browser tells of the measures that are predicted; of the others it tells nothing. */
export const MEASURED_AS: Partial<Record<Measure, Summed>> = {
  'first content': 'firstContent',
  'largest content': 'largestContent',
  interactive: 'interactive',
  wait: 'wait',
};

/** What lists say of a rehearsal: what was run, and when it was interactive (median, in ms). */
export interface RehearsalSummary
  extends Pick<Rehearsal, 'plan' | 'pattern' | 'address' | 'acts' | 'conditions' | 'at'> {
  interactive: number | null;
  /** What was seen, in ms; those that were kept before have none of it. */
  measured?: Partial<Record<Summed, Spread>>;
}

/** The summary of a rehearsal, which itself holds very much. */
export function summaryOf({ plan, pattern, address, acts, conditions, at, runs }: Rehearsal): RehearsalSummary {
  const measured = Object.fromEntries(
    (Object.keys(SUMMED) as Summed[]).flatMap((of) => {
      const spread = spreadIn(runs, of);
      return spread === null ? [] : [[of, spread] as const];
    }),
  );
  return {
    ...{ plan, pattern, address, conditions, at, measured, interactive: measured.interactive?.median ?? null },
    ...(acts === undefined ? {} : { acts }),
  };
}

/** A rehearsal as it is kept: what it was made from. */
interface Kept {
  snapshotId: string;
  decisions: readonly Decision[];
  summary: RehearsalSummary;
}

/**
 * What was measured of a landing under a plan as it is now: of the newest rehearsal of the same reading, decisions, route and conditions; null
 * where nothing was. `kept`: the newest first.
 */
export function measuredOf(
  kept: readonly Kept[],
  now: { snapshotId: string; decisions: readonly Decision[]; pattern: string; conditions: Conditions },
): Partial<Record<Summed, Spread>> | null {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const values = ({ link, device, cache }: Conditions) => [
    { ...link, name: '', id: '' },
    { ...device, name: '', id: '' },
    cache,
  ];
  const found = kept.find(
    ({ snapshotId, decisions, summary }) =>
      summary.measured !== undefined &&
      snapshotId === now.snapshotId &&
      summary.pattern === now.pattern &&
      same(decisions, now.decisions) &&
      same(values(summary.conditions), values(now.conditions)),
  );
  return found?.summary.measured ?? null;
}
