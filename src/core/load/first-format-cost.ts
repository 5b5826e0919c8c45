import { has } from '../chunks/bits.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { LandedRoot } from './landing.ts';

/**
 * What the first object costs on a page that formats numbers, dates or texts of a language, in ms on the reference machine: the browser loads what it knows of
 * languages. Further ones are cheap. Measured in Chromium, in new pages: 27 to 29 ms for numbers, dates, lists; 18 for what only puts texts in order (docs/SIMULATOR.md).
 */
export const FIRST_FORMATS_MS = 27;

const known = new WeakMap<Snapshot, readonly number[]>();

/** Modules that format something as they run, by their positions; landings are compiled by the hundreds. */
export function formatStarters(snapshot: Snapshot): readonly number[] {
  let found = known.get(snapshot);
  if (!found) {
    found = snapshot.modules.flatMap((m, at) => (m.startsFormats ? [at] : []));
    known.set(snapshot, found);
  }
  return found;
}

/** Whether code that a landing brings formats something as it runs. */
export function startsFormats(
  snapshot: Snapshot,
  graph: ChunkGraph,
  roots: readonly Pick<LandedRoot, 'root'>[],
): boolean {
  return formatStarters(snapshot).some((at) => roots.some(({ root }) => has(graph.roots[root].reach, at)));
}
