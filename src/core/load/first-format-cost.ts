import { has } from '../chunks/bits.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { LandedRoot } from './landing.ts';

/**
 * What the first object costs on a page that formats numbers, dates or texts of a language, in ms on the reference machine: the browser loads what it knows of
 * languages. Further ones are cheap. Measured in Chromium, in new pages: 27 to 29 ms for numbers, dates, lists; 18 for what only puts texts in order (docs/SIMULATOR.md).
 */
export const FIRST_FORMATS_MS = 27;

/** Whether code that a landing brings formats something as it runs. */
export function startsFormats(
  { modules }: Pick<Snapshot, 'modules'>,
  graph: ChunkGraph,
  roots: readonly Pick<LandedRoot, 'root'>[],
): boolean {
  return modules.some((m, at) => m.startsFormats && roots.some(({ root }) => has(graph.roots[root].reach, at)));
}
