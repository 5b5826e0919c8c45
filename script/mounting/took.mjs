// What a page of a made app keeps of itself in `globalThis.took` once it has drawn (`widgets.mjs`), beside the reference machine.
import { besideReference } from '../beside-reference.mjs';

/** Opens an address in a new page of a browser and waits for what it keeps. Throws what the page throws. */
export async function tookAt(browser, address) {
  const page = await browser.newPage();
  try {
    const failed = new Promise((_, fail) => page.on('pageerror', fail));
    const took = besideReference(page, async () => {
      await page.goto(address);
      return (await page.waitForFunction(() => globalThis.took, null, { timeout: 30_000 })).jsonValue();
    });
    return await Promise.race([took, failed]);
  } finally {
    // What a piece began may end its page before.
    await page.close().catch(() => {});
  }
}
