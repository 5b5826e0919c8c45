import type { LoadProgram } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { type Milestones, readTimeline } from './readout.ts';

/** How a landing is spread where the link loses packets at random: over many loads, each with its own chances. In ms. */
export interface LossSpread {
  /** The row of chances of the load in the middle, by its time until interactive. */
  seed: number;
  median: Milestones;
  /** Nine of ten loads are no later. */
  p90: Milestones;
}

/** Loads that are drawn: an odd number, so that one of them is in the middle; a tenth of them is four. */
const DRAWN = 41;

/** Draws loads of a landing; null where the link loses nothing. The same for the same program and conditions. */
export function lossSpread(program: LoadProgram, conditions: Conditions): LossSpread | null {
  const { lossPercent = 0, lossSeed = 1 } = conditions.link;
  if (lossPercent === 0) return null;
  const loads = Array.from({ length: DRAWN }, (_, n) => {
    const seed = lossSeed + n;
    const tried = withSeed(conditions, seed);
    return { seed, milestones: readTimeline(program, simulate(program, tried), tried).milestones };
  });
  const middle = [...loads].sort((a, b) => later(a.milestones.interactive, b.milestones.interactive))[DRAWN >> 1];
  const names = Object.keys(middle.milestones) as (keyof Milestones)[];
  const at = (share: number) =>
    Object.fromEntries(
      names.map((name) => {
        const sorted = loads.map((l) => l.milestones[name]).sort(later);
        return [name, sorted[Math.floor(share * (DRAWN - 1))]];
      }),
    ) as unknown as Milestones;
  return { seed: middle.seed, median: at(0.5), p90: at(0.9) };
}

/** The same conditions with another row of chances. */
export function withSeed(conditions: Conditions, lossSeed: number): Conditions {
  return { ...conditions, link: { ...conditions.link, lossSeed } };
}

/** What never comes is later than everything. */
function later(a: number, b: number): number {
  return (Number.isNaN(a) ? Number.POSITIVE_INFINITY : a) - (Number.isNaN(b) ? Number.POSITIVE_INFINITY : b) || 0;
}
