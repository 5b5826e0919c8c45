// How long a page's thread takes to draw a piece of interface that a package draws by script (a chart, a map, an editor, a table of data), the first time on a page
// and once more: `node script/mounted.mjs [PACKAGE…] [--runs N] [--keep DIR] [--table]`. The packages are installed into a folder of their own, without running
// anything of them but in the browser; nothing of the program needs them. Build first: npm run build:node. `--table` prints what
// `core/load/drawn-by-packages.ts` holds. All times are those of the reference machine (`beside-reference.mjs`).
import path from 'node:path';
import { parseArgs } from 'node:util';
import { ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { serveNatively } from './drawing/native.mjs';
import { installInto, madeFolder, writeFiles } from './made-apps.mjs';
import { tookAt } from './mounting/took.mjs';
import { filesOf, WIDGETS } from './mounting/widgets.mjs';

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' }, table: { type: 'boolean' } },
});
const runs = Number(values.runs ?? 5);
const { folder: home, done } = madeFolder(values.keep, 'mounted');
installInto(home, [...new Set(['react@19', 'react-dom@19', ...WIDGETS.flatMap(([name, more]) => [name, ...more])])]);
const nameOf = (wanted) => wanted.replace(/(.)@[^@/]*$/, '$1');

const { served, address, stop } = await serveNatively();
const browser = await launchBrowser();
const rows = [];

/** What an app keeps that begins with one of its files. */
const tookIn = (folder, entry) => {
  served.entry = path.join(folder, entry);
  return tookAt(browser, address);
};

for (const [wanted, , code] of WIDGETS.filter(([name]) => only.length === 0 || only.includes(nameOf(name)))) {
  const name = nameOf(wanted);
  const folder = path.join(home, 'apps', name.replaceAll('/', '-'));
  writeFiles(folder, filesOf(name, code));
  try {
    const took = [];
    for (let run = 0; run < runs; run++) took.push(await tookIn(folder, 'src/main.jsx'));
    const { formats } = (await tookIn(folder, 'src/looks.jsx')).result;
    const [first, again] = ['first', 'again'].map((what) => ofReference(took, (result) => result[what]));
    const row = { name, formats, first, again };
    rows.push(row);
    const { elements, height } = took[0].result;
    console.log(
      `${name.padEnd(20)} first ${row.first.toFixed(1).padStart(6)} ms, once more ${row.again.toFixed(1).padStart(6)} ms; ${elements} elements, ${height} px${formats ? ', formats' : ''}`,
    );
  } catch (error) {
    console.log(`${name}: ${error.message.split('\n')[0]}`);
  }
}
await browser.close();
stop();
done();
const rounded = (ms) => (ms < 10 ? ms.toFixed(1) : Math.round(ms));
if (values.table)
  for (const { name, first, again, formats } of rows.sort((a, b) => (a.name < b.name ? -1 : 1)))
    console.log(`  ['${name}', ${rounded(first)}, ${rounded(again)}${formats ? ', FORMATS' : ''}],`);
