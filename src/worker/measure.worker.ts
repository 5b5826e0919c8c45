import { expose } from 'comlink';
import { workload } from '../core/sim/workload.ts';

const RUNS = 25;

/** The best time of a fixed workload, in ms: the first runs are slower, since nothing is compiled yet. */
function measure(): number {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < RUNS; run++) {
    const began = performance.now();
    workload();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}

expose({ measure });
