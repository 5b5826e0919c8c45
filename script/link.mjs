// Judges the rehearsal's link: recorded load cases are served through it, and the ends of their responses laid beside those of the recordings,
// which were made over a link of the system. Build first: npm run build:node.
// Usage: node script/link.mjs RECORDINGS [--runs N] [--only TEXT] [--most N]
import fs from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { connectsLater, findBrowser } from '../dist/rehearse/browser/find-browser.js';
import { OpenBrowser } from '../dist/rehearse/browser/open-browser.js';
import { ServerBeside } from '../dist/rehearse/serve/server-beside.js';
import { canServe, PAGE_SCRIPT, siteOf } from './linking/case-site.mjs';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    runs: { type: 'string', default: '3' },
    only: { type: 'string' },
    most: { type: 'string', default: '100' },
  },
});
const inner = path.join(positionals[0] ?? 'fidelity', 'recordings');
const folder = fs.existsSync(inner) ? inner : positionals[0];
const cases = fs
  .readdirSync(folder)
  .filter((f) => f.endsWith('.json') && f.includes(values.only ?? ''))
  .map((f) => JSON.parse(fs.readFileSync(path.join(folder, f), 'utf8')))
  .filter(canServe)
  .slice(0, Number(values.most));
const DEVICE = { cpuFactor: 1, viewport: { width: 1280, height: 800 }, touch: false };
const QUIET_MS = 600;

async function load(c) {
  const { protocol, tls, rttMs, downKbps, upKbps, queuePackets } = c.conditions;
  const { host, answers } = siteOf(c);
  const packets = queuePackets ?? Math.max(64, Math.ceil((2 * (downKbps / 8) * rttMs) / 1500));
  const server = await ServerBeside.start(
    {
      hosts: [host],
      speaking: { protocol, tls: tls ? '1.3' : 'none' },
      link: { rttMs, downKbps, upKbps, dnsMs: 0, headStartMs: connectsLater(findBrowser()), queuePackets: packets },
      answers,
    },
    () => null,
  );
  const profile = OpenBrowser.newProfile();
  const browser = await OpenBrowser.start(findBrowser(), profile, DEVICE, server.led);
  try {
    await browser.page.addInitScript(PAGE_SCRIPT);
    await browser.page.goto(`${tls ? 'https' : 'http'}://${host}${c.document.url}`, { waitUntil: 'load' });
    const wanted = Object.keys(c.measured.resources).filter((k) => !k.includes('#')).length;
    const count = () => browser.page.evaluate(() => performance.getEntriesByType('resource').length);
    for (let waited = 0; waited < 15_000 && (await count()) < wanted; waited += 100)
      await browser.page.waitForTimeout(100);
    await browser.page.waitForTimeout(QUIET_MS);
    return await browser.page.evaluate(() => ({
      nav: performance.getEntriesByType('navigation')[0].toJSON(),
      paint: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? null,
      resources: Object.fromEntries(
        performance.getEntriesByType('resource').map((r) => [new URL(r.name).pathname, r.toJSON()]),
      ),
    }));
  } finally {
    await browser.close();
    OpenBrowser.removeProfile(profile);
    server.stop();
  }
}

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const rank = (list, share) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
const errors = { ends: [], document: [], content: [], load: [] };
for (const c of cases) {
  const runs = [];
  for (let n = 0; n < Number(values.runs); n++) runs.push(await load(c));
  const own = [];
  for (const [href, truth] of Object.entries(c.measured.resources)) {
    if (!Array.isArray(truth.responseEnd) || href.includes('#')) continue;
    const ends = runs.map((r) => r.resources[href]?.responseEnd).filter((e) => e !== undefined);
    if (ends.length === 0) console.log(`  ${c.id}: ${href} was never asked for`);
    else own.push(median(ends) / truth.responseEnd[0] - 1);
  }
  const { milestones } = c.measured;
  const documentEnd = median(runs.map((r) => r.nav.responseEnd)) / milestones.responseEnd[0] - 1;
  const content = median(runs.map((r) => r.paint)) / milestones.firstContentfulPaint[0] - 1;
  const loaded = median(runs.map((r) => r.nav.loadEventStart)) / milestones.load[0] - 1;
  errors.ends.push(...own);
  errors.document.push(documentEnd);
  errors.content.push(content);
  errors.load.push(loaded);
  const say = (e) => `${(e * 100).toFixed(1).padStart(6)} %`;
  console.log(
    `${c.id.padEnd(46)} document ${say(documentEnd)}, files ${say(median(own))}, first content ${say(content)}, load ${say(loaded)}`,
  );
}
for (const [what, list] of Object.entries(errors)) {
  const off = list.map(Math.abs);
  console.log(
    `${what}: ${list.length}, off by ${(median(off) * 100).toFixed(1)} % (median), ${(rank(off, 0.9) * 100).toFixed(1)} % (90th percentile), lean ${(median(list) * 100).toFixed(1)} %`,
  );
}
