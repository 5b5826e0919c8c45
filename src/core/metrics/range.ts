import type { LoadProgram } from '../load/types.ts';
import { type Conditions, DRAWING_RANGE, EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { type Milestones, readTimeline } from './readout.ts';

/** The same conditions with running script and drawing as cheap, and as dear, as is believable; none where the device says what script costs. */
export function believable(conditions: Conditions): Conditions[] {
  const { device } = conditions;
  if (device.evaluationRate !== undefined) return [];
  return (['low', 'high'] as const).map((end) => ({
    ...conditions,
    device: { ...device, evaluationRate: EVALUATION_RATE[end], drawingFactor: DRAWING_RANGE[end] },
  }));
}

/**
 * The milestones of a landing if script costs as little, or as much, as is believable: they rest on an estimate. Null
 * where the device says what script costs, or nothing of the landing is estimated.
 */
export function rangeOf(program: LoadProgram, conditions: Conditions): { low: Milestones; high: Milestones } | null {
  const isDrawn = program.parts.some((p) => p.drawnBy === 'script' && p.renderMs > 0 && !p.measured);
  if (!isDrawn && program.resources.every((r) => r.estimatedBytes === 0)) return null;
  const [low, high] = believable(conditions).map(
    (tried) => readTimeline(program, simulate(program, tried), tried).milestones,
  );
  return low && high ? { low, high } : null;
}
