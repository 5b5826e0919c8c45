// Measures how the workbench itself starts, in Chromium over an emulated link: for each station the bytes of script, requests, and
// the time until the live strip stands, and until the page answers; and what Yokeline predicts of it, read from this repository.
// Build first: npm run build:node && npm run build:web
// Usage: node script/own-startup.mjs [RUNS] [--link ID] [--device ID]
import { parseArgs } from 'node:util';
import { BASELINE } from '../dist/core/plan/types.js';
import { predict } from '../dist/core/predict/predict.js';
import { namedDevice, namedLink } from '../dist/core/sim/own-conditions.js';
import { STATIONS } from '../dist/core/vocabulary/stations.js';
import { readSource } from '../dist/reader/read-source.js';
import { withSample } from './served.mjs';

// The former crowded link and middling phone: harsher than those that the interface begins with.
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { link: { type: 'string', default: 'crowded-4g' }, device: { type: 'string', default: 'mid-phone' } },
});
const RUNS = Number(positionals[0] ?? 3);
const link = namedLink(values.link);
const device = namedDevice(values.device);
const LINK = {
  offline: false,
  latency: link.rttMs,
  downloadThroughput: (link.downKbps * 1000) / 8,
  uploadThroughput: (link.upKbps * 1000) / 8,
};

const middle = (all) => [...all].sort((a, b) => a - b)[all.length >> 1];

/** One load of a station by somebody who was never here: bytes of script, requests, and times in ms. */
async function load(address, context, station) {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.setCacheDisabled', { cacheDisabled: true });
  await session.send('Network.emulateNetworkConditions', LINK);
  await session.send('Emulation.setCPUThrottlingRate', { rate: device.cpuFactor });
  const types = new Map();
  let bytes = 0;
  session.on('Network.responseReceived', ({ requestId, type }) => types.set(requestId, type));
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (types.get(requestId) === 'Script') bytes += encodedDataLength;
  });
  // Who comes for the first time has no fonts either.
  await page.addInitScript(() => localStorage.removeItem('yokeline:fonts'));
  const began = performance.now();
  await page.goto(`${address}/p/saltmarsh/${station}?route=/timetable&plan=baseline`, { waitUntil: 'commit' });
  await page.locator('[data-figure="interactive"]').waitFor({ timeout: 120_000 });
  const strip = performance.now() - began;
  await page.locator('[data-open]').waitFor({ timeout: 120_000 });
  const answers = performance.now() - began;
  const paint = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN);
  await page.close();
  return { bytes, requests: types.size, paint, strip, answers };
}

console.log(
  `${link.name} (${link.rttMs} ms, ${link.downKbps} kbit/s), ${device.name} (${device.cpuFactor} times slower)`,
);
await withSample(async (address, context) => {
  // What the server does at its first request is no page's.
  await fetch(`${address}/p/saltmarsh/split`).then((r) => r.text());
  console.log('station       script kB  requests  first content ms  live strip ms  answers ms');
  for (const station of Object.keys(STATIONS)) {
    const runs = [];
    for (let n = 0; n < RUNS; n++) runs.push(await load(address, context, station));
    const of = (key) => Math.round(middle(runs.map((r) => r[key])));
    const cells = [Math.round(of('bytes') / 1000), of('requests'), of('paint'), of('strip'), of('answers')];
    console.log(station.padEnd(12) + cells.map((cell, i) => String(cell).padStart([11, 10, 18, 15, 12][i])).join(''));
  }
});

// Emulated links answer over HTTP/1.1 without TLS, and find names at once.
const { snapshot } = readSource('.');
const emulated = { ...link, protocol: 'h1', tls: 'none', dnsMs: 0 };
const { reading } = predict(snapshot, BASELINE, '/p/:project/:station', { link: emulated, device, cache: 'empty' });
const { firstContent, interactive } = reading.milestones;
console.log(
  `predicted: ${Math.round(reading.readout.startBytes / 1000)} kB, first content ${Math.round(firstContent)} ms, interactive ${Math.round(interactive)} ms`,
);
