import type { CDPSession, Page } from 'playwright-core';
import { REFERENCE_MS, usualTime, workload } from '../../core/sim/workload.ts';

/** A slow-down is close enough within this share, and is corrected so often. */
const CLOSE = 0.1;
const MOST_TRIES = 3;

/** How a page's thread was slowed. */
export interface Slowed {
  /** How many times slower than the reference machine this one was just then. */
  machine: number;
  /** How many times slower than this machine the thread was made. */
  held: number;
}

/**
 * Slows a page’s thread until it is a factor slower than the reference machine, and gives how far it really is. This machine is
 * measured first, since it is another one, and not always as fast: one that is slower than asked for stays as it is. What browsers are told is kept only roughly (told four they
 * were two to three times slower, and not the same all the time), so that is measured as well and corrected.
 */
export async function slowDown(page: Page, tools: CDPSession, factor: number): Promise<Slowed> {
  const machine = await machineFactor(page);
  const meant = factor / machine;
  if (meant <= 1 + CLOSE) return { machine, held: 1 };
  const full = await page.evaluate(work);
  let rate = meant;
  let held = 1;
  for (let tried = 0; tried < MOST_TRIES; tried++) {
    await tools.send('Emulation.setCPUThrottlingRate', { rate });
    held = (await page.evaluate(work)) / full;
    if (Math.abs(held / meant - 1) <= CLOSE) break;
    rate *= meant / held;
  }
  return { machine, held };
}

/** How many times slower than the reference machine this one is once nothing holds the thread back any more. */
export async function machineAfter(page: Page, tools: CDPSession): Promise<number> {
  await tools.send('Emulation.setCPUThrottlingRate', { rate: 1 });
  return machineFactor(page);
}

const machineFactor = async (page: Page): Promise<number> =>
  (await page.evaluate<number>(`(${usualTime})(${workload}, () => performance.now())`)) / REFERENCE_MS;

/** Something that always takes as long, in the page, in ms: long enough for the turns in which a thread is held back. */
function work(): number {
  const began = performance.now();
  let sum = 0;
  for (let n = 0; n < 120_000_000; n++) sum += Math.sqrt(n);
  return sum > 0 ? performance.now() - began : 0;
}
