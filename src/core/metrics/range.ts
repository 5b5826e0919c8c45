import type { LoadProgram } from '../load/types.ts';
import { type Conditions, DRAWING_RANGE, EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { type Milestones, readTimeline } from './readout.ts';

/**
 * How far what isn't estimated may be off, either way, as a share: nine of ten recorded loads were no further from what was predicted of them,
 * with the cost of their script known (`script/fidelity`: first content and ends of responses 7.0 %, ends of evaluations 3.3 %).
 */
export const RECORDED_RANGE = 0.07;

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
 * The least and the most that the milestones of a landing may come to, in ms: with script and drawing as cheap, and as dear, as is believable where
 * they are estimated, and as far off either way as predictions of recorded loads were.
 */
export function rangeOf(program: LoadProgram, conditions: Conditions): { low: Milestones; high: Milestones } {
  const isDrawn = program.parts.some((p) => p.drawnBy === 'script' && p.renderMs > 0 && !p.measured);
  const isEstimated = isDrawn || program.resources.some((r) => r.estimatedBytes > 0);
  const tried = isEstimated ? believable(conditions) : [];
  const ends = (tried.length > 0 ? tried : [conditions]).map(
    (c) => readTimeline(program, simulate(program, c), c).milestones,
  );
  return { low: times(ends[0], 1 - RECORDED_RANGE), high: times(ends[ends.length - 1], 1 + RECORDED_RANGE) };
}

function times(milestones: Milestones, share: number): Milestones {
  const { firstContent, largestContent, firstScreenComplete, interactive, timeToInteractive } = milestones;
  return {
    firstContent: firstContent * share,
    largestContent: largestContent * share,
    firstScreenComplete: firstScreenComplete * share,
    interactive: interactive * share,
    timeToInteractive: timeToInteractive * share,
  };
}
