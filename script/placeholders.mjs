// How long a component system keeps a placeholder that it has shown for deferred code, in a real browser: `node script/placeholders.mjs [--keep DIR]`.
// Two versions of React are installed into folders of their own; nothing of the program needs them. Build first: npm run build:node. Prints when code
// came, and when it was seen, in ms since the first placeholder was; what was found is in `src/reader/placeholders.ts`.
import path from 'node:path';
import { parseArgs } from 'node:util';
import { launchBrowser } from './browser.mjs';
import { installInto, madeFolder, serveFiles, writeFiles } from './made-apps.mjs';

const dist = (file) => import(new URL(`../dist/${file}`, import.meta.url));
const { readSource } = await dist('reader/read-source.js');
const { assemble } = await dist('rehearse/assemble/assemble.js');
const { planned } = await dist('core/chunks/planned.js');
const { BASELINE } = await dist('core/plan/types.js');

const { values } = parseArgs({ options: { keep: { type: 'string' } } });
const { folder: home, done } = madeFolder(values.keep, 'placeholders');
const MAIN = `
import { lazy, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
const asked = new URLSearchParams(location.search);
const at = (window.at = {});
const mark = (name) => (element) => { if (element !== null && !(name in at)) at[name] = performance.now(); };
const after = (name, component) => lazy(() => new Promise((done) => setTimeout(() => { mark(name + ' came')(); done({ default: component }); }, Number(asked.get(name)))));
const Inner = after('inner', () => <p ref={mark('inner seen')}>inner</p>);
const Outer = after('outer', () => (
  <section ref={mark('outer seen')}>
    {asked.has('inner') ? <Suspense fallback={<i ref={mark('inner placeholder')}>wait</i>}><Inner /></Suspense> : null}
  </section>
));
createRoot(document.getElementById('root')).render(<Suspense fallback={<b ref={mark('placeholder')}>wait</b>}><Outer /></Suspense>);
`;
const CASES = [
  ...['outer=20', 'outer=50', 'outer=150', 'outer=280', 'outer=400'],
  ...['outer=50&inner=20', 'outer=50&inner=100', 'outer=400&inner=50', 'outer=400&inner=350'],
];

const { served, address, stop } = await serveFiles();
const browser = await launchBrowser();
for (const major of [19, 18]) {
  const folder = path.join(home, String(major));
  installInto(folder, [`react@${major}`, `react-dom@${major}`]);
  writeFiles(folder, {
    'package.json': '{ "name": "kept", "private": true }',
    'index.html': '<script type="module" src="/main.jsx"></script>',
    'main.jsx': MAIN,
  });
  const { snapshot, texts } = readSource(folder);
  const { graph } = planned(snapshot, BASELINE);
  const { files } = assemble(snapshot, graph, texts, (c) => `/f${c}.js`);
  served.files = new Map(files.map((f) => [f.address, f.text]));
  const tags = graph.roots[0].group.map((c) => `<script src="/f${c}.js"></script>`).join('');
  served.page = `<!doctype html><body><div id="root"></div>${tags}`;
  console.log(`react-dom ${snapshot.packages.find((p) => p.name === 'react-dom')?.version}`);
  for (const asked of CASES) {
    const page = await browser.newPage();
    await page.goto(`${address}?${asked}`);
    await page.waitForTimeout(1500);
    const { placeholder, ...at } = await page.evaluate(() => globalThis.at);
    const told = Object.entries(at).map(([name, ms]) => `${name} ${Math.round(ms - placeholder)}`);
    console.log(`  ${asked.padEnd(20)} ${told.join(', ')}`);
    await page.close();
  }
}
await browser.close();
stop();
done();
