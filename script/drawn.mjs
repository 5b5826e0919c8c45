// Lays what drawing is reckoned to cost beside what it takes in a real browser, for small apps of widely used component libraries:
// `node script/drawn.mjs [NAME…] [--runs N] [--keep DIR]`. They are installed into a folder of their own, without running anything of them; nothing of
// the program needs them. Build first: npm run build:node. All times are those of the reference machine (`beside-reference.mjs`).
import path from 'node:path';
import { parseArgs } from 'node:util';
import { besideReference, ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { APPS, filesOf, PACKAGES } from './drawing/apps.mjs';
import { serveNatively } from './drawing/native.mjs';
import { installInto, madeFolder, writeFiles } from './made-apps.mjs';

const core = (file) => import(new URL(`../dist/core/${file}`, import.meta.url));
const { readSource } = await import('../dist/reader/read-source.js');
const { planned } = await core('chunks/planned.js');
const { compileLoad } = await core('load/compile.js');
const { BASELINE } = await core('plan/types.js');

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' } },
});
const runs = Number(values.runs ?? 5);
const { folder: home, done } = madeFolder(values.keep, 'drawn');
const AIMS = { median: 0.25, p90: 0.6 };

installInto(home, PACKAGES);

const { served, address, stop } = await serveNatively();
const browser = await launchBrowser();
const rows = [];
for (const app of APPS.filter(([name]) => only.length === 0 || only.includes(name))) {
  const folder = path.join(home, 'apps', app[0]);
  writeFiles(folder, filesOf(app));
  const { snapshot } = readSource(folder, { workspace: home });
  const { parts } = compileLoad(planned(snapshot, BASELINE), snapshot.routes[0].pattern);
  const reckoned = parts.reduce((sum, p) => sum + p.renderMs, 0);
  served.entry = path.join(folder, 'src/main.jsx');
  const took = [];
  for (let run = 0; run < runs; run++) {
    const page = await browser.newPage();
    // A blank page of the same process has to do for before.
    const beside = await besideReference(page, async () => {
      await page.goto(address);
      const found = await page.waitForFunction(() => globalThis.took, null, { timeout: 60_000 });
      return found.jsonValue();
    });
    took.push(beside);
    await page.close();
  }
  const measured = ofReference(took, ({ drawing }) => drawing);
  rows.push({ reckoned, measured, off: Math.abs(reckoned / measured - 1) });
  const layout = ofReference(took, (result) => result.layout);
  const line = `reckoned ${reckoned.toFixed(1).padStart(6)} ms, took ${measured.toFixed(1).padStart(6)} ms`;
  console.log(`${app[0].padEnd(14)} ${line}, and ${layout.toFixed(1)} ms of layout`);
}
await browser.close();
stop();
done();
const off = rows.map((r) => r.off).sort((a, b) => a - b);
const [median, p90] = [0.5, 0.9].map((q) => off[Math.min(off.length - 1, Math.floor(off.length * q))]);
const percent = (share) => `${Math.round(share * 100)} %`;
console.log(
  `off by ${percent(median)} (median, aim ${percent(AIMS.median)}), ${percent(p90)} (p90, aim ${percent(AIMS.p90)})`,
);
process.exitCode = median > AIMS.median || p90 > AIMS.p90 ? 1 : 0;
