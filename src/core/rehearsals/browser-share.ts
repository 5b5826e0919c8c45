import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { spreadOf } from './spread.ts';
import type { Rehearsal, RehearsedRun } from './types.ts';

/** A browser that seems this much quicker or slower than is reckoned wasn't measured: something else came between. */
const LEAST = 0.25;
const MOST = 4;

/**
 * How long the browser that ran took for its own work (taking a document over, reading and painting it), as a share of what is reckoned for a thread
 * that is as slow: by the time from a document's first byte to the first file that it names, where nothing but that work lies between.
 * The median of all runs; null where none tells.
 */
export function browserShare(rehearsals: readonly Pick<Rehearsal, 'conditions' | 'runs'>[]): number | null {
  const shares = rehearsals.flatMap(({ conditions: { device }, runs }) => {
    const { commit, discover } = device.costs ?? REFERENCE_COSTS;
    const reckoned = (commit + discover) * (device.browserFactor / device.cpuFactor);
    return runs.flatMap((run) => {
      const took = foundAfter(run);
      const share = took === null ? null : took / (reckoned * run.slowed);
      return share !== null && share >= LEAST && share <= MOST ? [share] : [];
    });
  });
  return spreadOf(shares)?.median ?? null;
}

/** From a document's first byte to the first file that is asked for after it; what early hints name is asked for before it. In ms. */
function foundAfter({ requests: [document, ...files] }: RehearsedRun): number | null {
  const after = files.map((f) => f.discovered - document.firstByte).filter((ms) => ms > 0);
  return after.length === 0 ? null : Math.min(...after);
}
