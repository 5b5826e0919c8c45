import type { MarkupItem, ScreenPart } from '../core/load/types.ts';
import { readTimeline } from '../core/metrics/readout.ts';
import type { Rehearsal, RehearsedRun } from '../core/rehearsals/types.ts';
import { simulate } from '../core/sim/simulate.ts';
import { file, page, ROUND, screenPart } from './programs.ts';

const entry: MarkupItem = { at: 100, tag: 'script', group: 0, mode: 'module' };
/** A part of the landing below. */
export const part = (id: string, more: Partial<ScreenPart> = {}): ScreenPart =>
  screenPart(id, { needs: [{ resource: 0, state: 'evaluated' }], renderMs: 10, ...more });
/** A landing whose page is drawn with its shell. */
export const program = {
  ...page([entry], [file('/entry-1a2b3c.js', { bytes: 40_000 }), file('/late.js', { bytes: 9000 })]),
  parts: [part('shell', { renderMs: 30 }), part('page')],
};
export const timeline = simulate(program, ROUND);
export const { milestones } = readTimeline(program, timeline, ROUND);

/** A run of which nothing is said but what is given. */
export const run = (more: Partial<RehearsedRun> = {}): RehearsedRun => ({
  requests: [],
  moments: { firstContent: 500, largestContent: 520, contentLoaded: 400, load: 450, interactive: 600 },
  ...{ parts: [], tasks: [], modules: {}, slowed: 1, busy: 0, errors: [] },
  ...more,
});
/** A rehearsal of the landing, of so many runs. */
export const rehearsal = (runs: RehearsedRun[], more: Partial<Rehearsal> = {}): Rehearsal => ({
  ...{ plan: 'Lean', pattern: '/', address: '/', conditions: ROUND, browser: 'Chromium 1', at: '2026-11-29T10:00:00Z' },
  ...{ runs, leftOut: [], told: [] },
  ...more,
});
/** A run that is interactive at a time. */
export const at = (interactive: number | null) => run({ moments: { ...run().moments, interactive } });
