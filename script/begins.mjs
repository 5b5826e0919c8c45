// What a component system takes when it draws for the first time in a document, beyond what drawing the same once more takes: `node script/begins.mjs [SYSTEM…] [--runs N]
// [--keep DIR]`, for a small page and one of usual size (`beginning/pages.mjs`). What the page's own code takes to run for the first time is taken off, as
// `core/load/drawing.ts` reckons it; `core/load/drawing-facts.ts` holds what is left of the usual page. The systems are installed into folders of their own. Build
// first: npm run build:node. All times are those of the reference machine (`beside-reference.mjs`).
import path from 'node:path';
import { parseArgs } from 'node:util';
import { SYSTEMS } from './beginning/pages.mjs';
import { ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { serveNatively } from './drawing/native.mjs';
import { installInto, madeFolder, writeFiles } from './made-apps.mjs';
import { tookAt } from './mounting/took.mjs';
import { filesOf } from './mounting/widgets.mjs';

const { DRAWING } = await import('../dist/core/load/drawing.js');
const { readSource } = await import('../dist/reader/read-source.js');
const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' } },
});
const runs = Number(values.runs ?? 7);
const { folder: home, done } = madeFolder(values.keep, 'begins');
const { served, address, stop } = await serveNatively();
const browser = await launchBrowser();

for (const { name, packages, main, files } of SYSTEMS.filter((s) => only.length === 0 || only.includes(s.name))) {
  const folder = path.join(home, name.replaceAll(' ', '-'));
  installInto(folder, packages);
  for (const size of ['small', 'usual']) {
    const app = path.join(folder, size);
    const made = filesOf(packages[0].replace(/@\d+$/, ''), main('page.jsx'));
    const own = Object.fromEntries(Object.entries(files[size]).map(([file, text]) => [`src/${file}`, text]));
    writeFiles(app, { ...made, ...own });
    const { snapshot, texts } = readSource(app, { workspace: folder });
    served.compiled = new Map(
      snapshot.modules.filter((m) => m.package === null).map((m) => [path.join(app, m.path), texts[m.path]]),
    );
    served.entry = path.join(app, 'src/main.jsx');
    const all = [];
    for (let run = 0; run < runs; run++) all.push(await tookAt(browser, address));
    const [first, again] = ['first', 'again'].map((what) => ofReference(all, (result) => result[what]));
    const bytes = snapshot.modules
      .filter((m) => Object.keys(own).includes(m.path))
      .reduce((sum, m) => sum + m.bytes.minified, 0);
    const left = first - again - bytes * DRAWING.firstByte;
    console.log(
      `${name.padEnd(14)} ${size.padEnd(6)} first ${first.toFixed(1)} ms, once more ${again.toFixed(1)} ms, own code ${bytes} bytes: begins ${left.toFixed(1)} ms`,
    );
  }
}
await browser.close();
stop();
done();
