// Lays what running the files of apps is reckoned to cost beside what it takes in a real browser, for apps that take what apps take of widely used packages
// (`sizing/apps.mjs`): `node script/evaluated-parts.mjs [APP…] [--runs N] [--keep DIR] [--each]`. The packages are installed into a folder of their own, without running anything
// of them on this machine but in the browser; nothing of the program needs them. Build first: npm run build:node. All times are those of the reference machine.
import path from 'node:path';
import { parseArgs } from 'node:util';
import { besideReference, COMPILE, ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { installInto, madeFolder, serveFiles, writeFiles } from './made-apps.mjs';
import { APPS, filesOf, PACKAGES } from './sizing/apps.mjs';

const dist = (file) => import(new URL(`../dist/${file}`, import.meta.url));
const { readSource } = await dist('reader/read-source.js');
const { assemble } = await dist('rehearse/assemble/assemble.js');
const { planned } = await dist('core/chunks/planned.js');
const { BASELINE } = await dist('core/plan/types.js');
const { EVALUATION_RATE } = await dist('core/sim/conditions.js');

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' }, each: { type: 'boolean' } },
});
const { folder: home, done } = madeFolder(values.keep, 'sizes');
const AIMS = { median: 0.15, p90: 0.4 };
/** Smaller files take less than what can be measured of them. */
const JUDGED = 10_000;

installInto(home, PACKAGES);

/** In the page: runs the files of an entry, and then those of each root with what that names; gives what each module took by itself, in ms. */
async function runRoots([entry, ...roots]) {
  const there = new Set();
  const add = async (files) => {
    for (const file of files.filter((f) => !there.has(f))) {
      there.add(file);
      const textContent = await (await fetch(file)).text();
      document.head.append(Object.assign(document.createElement('script'), { textContent }));
    }
  };
  await add(entry.files);
  for (const { files, modules } of roots) {
    await add(files);
    globalThis.__parts.start(files, modules);
  }
  return globalThis.__parts.times;
}

const { served, address, stop } = await serveFiles();
served.page = '<!doctype html><meta charset="utf-8"><link rel="icon" href="data:,"><body><div id="root"></div>';
const browser = await launchBrowser();
const offs = [];
for (const app of Object.entries(APPS).filter(([name]) => only.length === 0 || only.includes(name))) {
  const folder = path.join(home, 'apps', app[0]);
  writeFiles(folder, filesOf(app));
  const { snapshot, texts } = readSource(folder, { workspace: home });
  const { graph } = planned(snapshot, BASELINE);
  const { files } = assemble(snapshot, graph, texts, (c) => `/f${c}.js`);
  served.files = new Map(files.map((f) => [f.address, f.text]));
  const isScript = (c) => graph.chunks[c].kind === 'script';
  const roots = graph.roots.map((r) => ({
    files: r.group.filter(isScript).map((c) => `/f${c}.js`),
    modules: r.target,
  }));
  // What an entry does for its component system to begin counts as drawing.
  const mounts = new Set(roots[0].modules);
  const took = [];
  for (let run = 0; run < Number(values.runs ?? 5); run++) {
    const page = await browser.newPage();
    page.on('pageerror', (error) => console.log(`${app[0]}: ${error.message}`));
    await page.goto(address);
    took.push(await besideReference(page, () => page.evaluate(runRoots, roots)));
    await page.close();
  }
  for (const { name, kind, modules, bytes, measuredMs, estimatedBytes, overhead } of graph.chunks) {
    if (kind !== 'script' || bytes.minified < JUDGED) continue;
    const ran = modules.filter((m) => !mounts.has(m));
    const runMs = ofReference(took, (times) => ran.reduce((sum, m) => sum + (times[m] ?? 0), 0));
    const measured = runMs + COMPILE * bytes.minified;
    const reckoned = measuredMs + (estimatedBytes - overhead.minified) * EVALUATION_RATE.likely;
    offs.push(reckoned / measured - 1);
    if (values.each)
      console.log(
        `  ${app[0].padEnd(8)} ${name.padEnd(34)} ${String(Math.round(bytes.minified / 1000)).padStart(5)} kB, reckoned ${reckoned.toFixed(1).padStart(6)} ms, took ${measured.toFixed(1).padStart(6)} ms`,
      );
  }
}
await browser.close();
stop();
done();
const off = offs.map(Math.abs).sort((a, b) => a - b);
const [median, p90] = [0.5, 0.9].map((q) => off[Math.min(off.length - 1, Math.floor(off.length * q))]);
const percent = (share) => `${Math.round(100 * share)} %`;
console.log(
  `${off.length} files over 10 kB: off by ${percent(median)} (median, aim ${percent(AIMS.median)}), ${percent(p90)} (p90, aim ${percent(AIMS.p90)})`,
);
process.exitCode = median > AIMS.median || p90 > AIMS.p90 ? 1 : 0;
