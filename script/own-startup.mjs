// Measures how the workbench itself starts, in Chromium over an emulated link: for each station the bytes of script, requests, and
// the time until the live strip stands. Build first: npm run build:node && npm run build:web
import { withSample } from './served.mjs';

const STATIONS = ['inventory', 'split', 'load-sheet', 'startup', 'visits', 'hints', 'compare', 'handoff'];
/** Crowded cell and a phone four times slower, as in the interface. */
const LINK = { offline: false, latency: 150, downloadThroughput: 1_600_000 / 8, uploadThroughput: 750_000 / 8 };
const SLOWER = 4;
const RUNS = Number(process.argv[2] ?? 3);

const middle = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

await withSample(async (address, context) => {
  console.log('station       script kB  requests  first content ms  live strip ms');
  for (const station of STATIONS) {
    const runs = [];
    for (let n = 0; n < RUNS; n++) {
      const page = await context.newPage();
      const session = await context.newCDPSession(page);
      await session.send('Network.enable');
      await session.send('Network.setCacheDisabled', { cacheDisabled: true });
      await session.send('Network.emulateNetworkConditions', LINK);
      await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
      const types = new Map();
      let bytes = 0;
      session.on('Network.responseReceived', ({ requestId, type }) => types.set(requestId, type));
      session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
        if (types.get(requestId) === 'Script') bytes += encodedDataLength;
      });
      const began = performance.now();
      await page.goto(`${address}/p/saltmarsh/${station}?route=/timetable&plan=baseline`, { waitUntil: 'commit' });
      await page.locator('[data-figure="interactive"]').waitFor({ timeout: 120_000 });
      const strip = performance.now() - began;
      const paint = await page.evaluate(
        () => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
      );
      runs.push({ bytes, requests: types.size, paint, strip });
      await page.close();
    }
    const of = (key) => Math.round(middle(runs.map((r) => r[key])));
    console.log(
      `${station.padEnd(12)} ${String(Math.round(of('bytes') / 1000)).padStart(10)} ${String(of('requests')).padStart(9)} ${String(of('paint')).padStart(17)} ${String(of('strip')).padStart(14)}`,
    );
  }
});
