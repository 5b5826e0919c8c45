import type { Conditions } from '../sim/conditions.ts';
import { spreadOf } from './spread.ts';
import type { Rehearsal } from './types.ts';

/** From so much another slow-down than was meant a prediction is made for the one that was run. */
const LEAST = 0.05;

/** The conditions of a rehearsal as they really were: browsers slow their threads only roughly as they are told. */
export function conditionsAsRun({ conditions, runs }: Pick<Rehearsal, 'conditions' | 'runs'>): Conditions {
  const { device } = conditions;
  const slowed = spreadOf(runs.map((r) => r.slowed))?.median ?? device.cpuFactor;
  if (Math.abs(slowed / device.cpuFactor - 1) < LEAST) return conditions;
  const browserFactor = (device.browserFactor / device.cpuFactor) * slowed;
  return { ...conditions, device: { ...device, cpuFactor: slowed, browserFactor } };
}
