import type { CDPSession, Page } from 'playwright-core';

/** A slow-down is close enough within this share, and is corrected so often. */
const CLOSE = 0.1;
const MOST_TRIES = 3;

/**
 * Slows a page’s thread by a factor, and gives by how much it really is slower. What browsers are told is kept only roughly (told four they
 * were two to three times slower, and not the same all the time), so it is measured and corrected.
 */
export async function slowDown(page: Page, tools: CDPSession, factor: number): Promise<number> {
  const full = await page.evaluate(work);
  let rate = factor;
  let slowed = 1;
  for (let tried = 0; tried < MOST_TRIES; tried++) {
    await tools.send('Emulation.setCPUThrottlingRate', { rate });
    slowed = (await page.evaluate(work)) / full;
    if (Math.abs(slowed / factor - 1) <= CLOSE) break;
    rate *= factor / slowed;
  }
  return slowed;
}

/** Something that always takes as long, in the page, in ms: long enough for the turns in which a thread is held back. */
function work(): number {
  const began = performance.now();
  let sum = 0;
  for (let n = 0; n < 120_000_000; n++) sum += Math.sqrt(n);
  return sum > 0 ? performance.now() - began : 0;
}
