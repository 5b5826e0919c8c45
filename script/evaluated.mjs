// Lays what running a package is reckoned to cost beside what it takes in a real browser, for widely used packages that are taken whole:
// `node script/evaluated.mjs [PACKAGE…] [--runs N] [--keep DIR] [--table]`. They are installed into a folder of their own, without running
// anything of them on this machine but in the browser; nothing of the program needs them. Build first: npm run build:node. `--table` prints what
// `core/chunks/package-weights.ts` holds. All times are those of the reference machine (`beside-reference.mjs`).
import path from 'node:path';
import { parseArgs } from 'node:util';
import { besideReference, COMPILE, ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { PACKAGES, SPECIFIERS } from './evaluating/packages.mjs';
import { installInto, madeFolder, serveFiles, writeFiles } from './made-apps.mjs';

const dist = (file) => import(new URL(`../dist/${file}`, import.meta.url));
const { readSource } = await dist('reader/read-source.js');
const { assemble } = await dist('rehearse/assemble/assemble.js');
const { planned } = await dist('core/chunks/planned.js');
const { BASELINE } = await dist('core/plan/types.js');
const { EVALUATION_RATE } = await dist('core/sim/conditions.js');

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' }, table: { type: 'boolean' } },
});
const runs = Number(values.runs ?? 5);
const { folder: home, done } = madeFolder(values.keep, 'evaluated');

installInto(home, PACKAGES);

const PAGE = '<!doctype html><meta charset="utf-8"><link rel="icon" href="data:,"><body>';

/** In the page: runs files one after the other, each compiled and run on its thread; gives what all took, and each module by itself, in ms. */
async function runScripts(group) {
  const texts = await Promise.all(group.map(async (file) => (await fetch(file)).text()));
  let whole = 0;
  for (const text of texts) {
    const script = Object.assign(document.createElement('script'), { textContent: text });
    const began = performance.now();
    document.head.append(script);
    whole += performance.now() - began;
  }
  return { whole, times: globalThis.__parts.times };
}

/** Packages below so many bytes aren't worth a line. */
const LEAST = 10_000;
const major = (version) => Number(/^\d+/.exec(version ?? '')?.[0] ?? 0);

/** Least squares of the relative errors, by the normal equations. */
function fitted(points) {
  const size = points[0][0].length;
  const rows = Array.from({ length: size }, () => new Array(size + 1).fill(0));
  for (const [x, y] of points) {
    const weight = 1 / Math.max(1, y) ** 2;
    for (let i = 0; i < size; i++) {
      for (let j = 0; j < size; j++) rows[i][j] += weight * x[i] * x[j];
      rows[i][size] += weight * x[i] * y;
    }
  }
  for (let i = 0; i < size; i++)
    for (let k = 0; k < size; k++) {
      if (k === i) continue;
      const factor = rows[k][i] / rows[i][i];
      for (let j = i; j <= size; j++) rows[k][j] -= factor * rows[i][j];
    }
  return rows.map((row, i) => row[size] / row[i]);
}

const { served, address, stop } = await serveFiles();
served.page = PAGE;
const browser = await launchBrowser();
const rows = [];
for (const name of PACKAGES.map((p) => p.replace(/(.)@[^@/]*$/, '$1')).filter(
  (p) => only.length === 0 || only.includes(p),
)) {
  const folder = path.join(home, 'apps', name.replaceAll('/', '-'));
  writeFiles(folder, {
    'package.json': '{ "name": "taken", "private": true }',
    'index.html': '<script type="module" src="/main.js"></script>',
    'main.js': `import * as taken from '${SPECIFIERS[name] ?? name}';\nglobalThis.taken = taken;\n`,
  });
  const { snapshot, texts } = readSource(folder, { workspace: home });
  const { graph } = planned(snapshot, BASELINE);
  const { files, told } = assemble(snapshot, graph, texts, (c) => `/f${c}.js`);
  served.files = new Map(files.map((f) => [f.address, f.text]));
  const group = graph.roots[0].group.map((c) => `/f${c}.js`);
  const took = [];
  let failed = null;
  for (let run = 0; run < runs; run++) {
    const context = await browser.newContext();
    const page = await context.newPage();
    page.on('pageerror', (error) => (failed ??= error.message));
    await page.goto(address);
    took.push(await besideReference(page, () => page.evaluate(runScripts, group)));
    await context.close();
  }
  if (failed || told.length > 0) console.log(`${name}: ${failed ?? told[0].message}`);
  const own = snapshot.modules.map((m, i) => [m, i]).filter(([m]) => m.package === name && m.kind === 'script');
  const bytes = own.reduce((sum, [m]) => sum + m.bytes.minified, 0);
  if (bytes === 0 || failed) continue;
  const runMs = ofReference(took, ({ times }) => own.reduce((sum, [, i]) => sum + (times[i] ?? 0), 0));
  const rest = ofReference(took, ({ whole, times }) => whole - Object.values(times).reduce((sum, t) => sum + t, 0));
  const version = snapshot.packages.find((p) => p.name === name)?.version ?? null;
  const all = snapshot.modules.reduce((sum, m) => sum + m.bytes.minified, 0);
  rows.push({ name, version, bytes, modules: own.length, runMs, rest, all, count: snapshot.modules.length });
  console.log(
    `${name.padEnd(34)} ${String(version).padEnd(10)} ${String(Math.round(bytes / 1000)).padStart(5)} kB runs ${runMs.toFixed(1).padStart(6)} ms; the rest of all ${rest.toFixed(1)} ms`,
  );
}
await browser.close();
stop();
done();

// What isn't a module's own run goes by modules (a function of its own for each) and by size (compiling).
const [base, perModule, perByte] = fitted(rows.map((r) => [[1, r.count, r.all], r.rest]));
console.log(
  `beside running: ${base.toFixed(2)} ms, ${(perModule * 1000).toFixed(1)} µs a module, ${(perByte * 1000).toFixed(4)} ms/kB to compile`,
);
for (const r of rows) r.rate = r.runMs / r.bytes + COMPILE;
const mean = rows.reduce((sum, r) => sum + r.rate * r.bytes, 0) / rows.reduce((sum, r) => sum + r.bytes, 0);
console.log(`${rows.length} packages, ${(mean * 1000).toFixed(3)} ms/kB over all of their bytes`);
if (values.table)
  for (const r of rows.filter((r) => r.bytes >= LEAST).sort((a, b) => (a.name < b.name ? -1 : 1)))
    console.log(`  ['${r.name}', ${major(r.version)}, ${(r.rate / EVALUATION_RATE.likely).toPrecision(2)}],`);
