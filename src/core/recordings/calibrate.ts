import type { LoadProgram } from '../load/types.ts';
import { type Conditions, EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';

/** Rates that are believed at most, as multiples of the usual one. */
const MOST = 8;
const STEPS = 18;

/** What a recorded load says about the cost of evaluating script. */
export interface Calibration {
  /** ms per byte of minified text at CPU factor 1. */
  rate: number;
  /** The load event predicted with it. */
  load: number;
  /** Whether the recorded load event can be reached by the rate alone; otherwise the rate is at its limit. */
  reached: boolean;
}

/**
 * The evaluation rate with which a load program's predicted load event comes to a recorded one (ms from the start of
 * the navigation) under the same conditions. The load event grows with the rate, so that halving finds it.
 */
export function calibrate(program: LoadProgram, conditions: Conditions, recordedLoad: number): Calibration {
  const loadAt = (rate: number) =>
    simulate(program, { ...conditions, device: { ...conditions.device, evaluationRate: rate } }).moments.load;
  let low = 0;
  let high = EVALUATION_RATE.likely * MOST;
  if (loadAt(high) < recordedLoad) return { rate: high, load: loadAt(high), reached: false };
  if (loadAt(low) > recordedLoad) return { rate: low, load: loadAt(low), reached: false };
  for (let n = 0; n < STEPS; n++) {
    const middle = (low + high) / 2;
    if (loadAt(middle) < recordedLoad) low = middle;
    else high = middle;
  }
  return { rate: high, load: loadAt(high), reached: true };
}
