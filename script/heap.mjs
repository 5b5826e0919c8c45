// Toggles a decision fifty times a second for a minute, and prints what the page's memory comes to before and after. Build first:
// npm run build:node && npm run build:web. Other lengths: node script/heap.mjs SECONDS
import { withSample } from './served.mjs';

const seconds = Number(process.argv[2] ?? 60);
const EVERY_MS = 20;
/** By so much it may have grown, as a share: undo keeps its steps. */
const MOST_GROWN = 0.25;

await withSample(async (address, context) => {
  const page = await context.newPage();
  await page.goto(`${address}/p/saltmarsh/split?route=/timetable`);
  await page.locator('[data-ready]').waitFor();
  await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
  const session = await context.newCDPSession(page);
  const heap = async () => {
    await session.send('HeapProfiler.collectGarbage');
    return (await session.send('Runtime.getHeapUsage')).usedSize / 1e6;
  };
  const toggle = async (times) => {
    const began = performance.now();
    for (let n = 0; n < times; n++) {
      await page.keyboard.press(n % 2 === 0 ? 'd' : 'Control+z');
      const rest = (n + 1) * EVERY_MS - (performance.now() - began);
      if (rest > 0) await new Promise((wake) => setTimeout(wake, rest));
    }
    return (performance.now() - began) / 1000;
  };
  await toggle(100);
  const before = await heap();
  const count = Math.round((seconds * 1000) / EVERY_MS);
  const took = await toggle(count);
  const after = await heap();
  console.log(
    `${count} toggles in ${took.toFixed(0)} s: heap ${before.toFixed(1)} MB before, ${after.toFixed(1)} MB after`,
  );
  if (after > before * (1 + MOST_GROWN)) process.exitCode = 1;
});
