import type { CDPSession, Page } from 'playwright-core';
import { bestTime, REFERENCE_MS, workload } from '../../core/sim/workload.ts';

/** A slow-down is close enough within this share, and is corrected so often. */
const CLOSE = 0.1;
const MOST_TRIES = 3;

/**
 * Slows a page’s thread until it is a factor slower than the reference machine, and gives how many times slower it really is. This machine is
 * measured first, since it is another one, and not always as fast: one that is slower than asked for stays as it is. What browsers are told is kept only roughly (told four they
 * were two to three times slower, and not the same all the time), so that is measured as well and corrected.
 */
export async function slowDown(page: Page, tools: CDPSession, factor: number): Promise<number> {
  const machine = (await page.evaluate<number>(`(${bestTime})(${workload}, () => performance.now())`)) / REFERENCE_MS;
  const meant = factor / machine;
  if (meant <= 1 + CLOSE) return machine;
  const full = await page.evaluate(work);
  let rate = meant;
  let slowed = 1;
  for (let tried = 0; tried < MOST_TRIES; tried++) {
    await tools.send('Emulation.setCPUThrottlingRate', { rate });
    slowed = (await page.evaluate(work)) / full;
    if (Math.abs(slowed / meant - 1) <= CLOSE) break;
    rate *= meant / slowed;
  }
  return machine * slowed;
}

/** Something that always takes as long, in the page, in ms: long enough for the turns in which a thread is held back. */
function work(): number {
  const began = performance.now();
  let sum = 0;
  for (let n = 0; n < 120_000_000; n++) sum += Math.sqrt(n);
  return sum > 0 ? performance.now() - began : 0;
}
