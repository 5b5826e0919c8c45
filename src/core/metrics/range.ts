import type { LoadProgram } from '../load/types.ts';
import { type Conditions, EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { type Milestones, readTimeline } from './readout.ts';

/**
 * The milestones of a landing if script costs as little, or as much, as is believable: they rest on an estimate. Null
 * where the device says what script costs, or nothing of the landing is estimated.
 */
export function rangeOf(program: LoadProgram, conditions: Conditions): { low: Milestones; high: Milestones } | null {
  if (conditions.device.evaluationRate !== undefined) return null;
  if (program.resources.every((r) => r.estimatedBytes === 0)) return null;
  const at = (evaluationRate: number) => {
    const tried = { ...conditions, device: { ...conditions.device, evaluationRate } };
    return readTimeline(program, simulate(program, tried), tried).milestones;
  };
  return { low: at(EVALUATION_RATE.low), high: at(EVALUATION_RATE.high) };
}
