import type { Conditions } from '../sim/conditions.ts';
import { spreadOf } from './spread.ts';
import type { Rehearsal } from './types.ts';

/** From so much another slow-down than was meant a prediction is made for the one that was run. */
const LEAST = 0.05;

/**
 * What each module takes to begin in assembled files, whose modules are functions of their own, in ms on the reference machine: what was run of them beyond what modules
 * took themselves (0.04 for each of 564, 0.04 to 0.06 for about 100, rehearsed). Files of builds that are served as they are have it in their own code.
 */
const MODULE_MS = 0.04;

/**
 * The conditions of a rehearsal as they really were: browsers slow their threads only roughly as they are told, with what the browser does besides (it shares a few cores with that), and
 * assembled files keep their modules apart.
 */
export function conditionsAsRun({ conditions, runs }: Pick<Rehearsal, 'conditions' | 'runs'>): Conditions {
  const device = runs.some((r) => Object.keys(r.modules).length > 0)
    ? { ...conditions.device, moduleMs: MODULE_MS }
    : conditions.device;
  const slowed = spreadOf(runs.map((r) => r.slowed))?.median ?? device.cpuFactor;
  if (Math.abs(slowed / device.cpuFactor - 1) < LEAST) return { ...conditions, device };
  const browserFactor = (device.browserFactor / device.cpuFactor) * slowed;
  return { ...conditions, device: { ...device, cpuFactor: slowed, browserFactor } };
}
