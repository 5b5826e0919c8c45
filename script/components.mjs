// How long a page's thread takes to draw one component of a library, on average over a kit of twelve that apps use much: `node script/components.mjs [LIBRARY…] [--runs N]
// [--keep DIR] [--table]`. Each kit is drawn two and six times over in new pages; what one more costs each is a twelfth of a quarter of the difference. The libraries are installed into
// folders of their own, without running anything of them but in the browser. Build first: npm run build:node. `--table` prints what `core/load/component-libraries.ts`
// holds. All times are those of the reference machine (`beside-reference.mjs`).
import path from 'node:path';
import { parseArgs } from 'node:util';
import { ofReference } from './beside-reference.mjs';
import { launchBrowser } from './browser.mjs';
import { serveNatively } from './drawing/native.mjs';
import { installInto, madeFolder, writeFiles } from './made-apps.mjs';
import { LIBRARIES } from './mounting/libraries.mjs';
import { tookAt } from './mounting/took.mjs';
import { filesOf } from './mounting/widgets.mjs';

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string' }, keep: { type: 'string' }, table: { type: 'boolean' } },
});
const runs = Number(values.runs ?? 5);
const { folder: home, done } = madeFolder(values.keep, 'components');
const { served, address, stop } = await serveNatively();
const browser = await launchBrowser();
const FEW = 2;
const MANY = 6;
const rows = [];

for (const [name, packages, { system, code, count }] of LIBRARIES.filter(
  ([name]) => only.length === 0 || only.includes(name),
)) {
  const folder = path.join(home, name.replaceAll('/', '-'));
  try {
    installInto(folder, [...system, ...packages]);
    const took = { [FEW]: [], [MANY]: [] };
    for (const times of [FEW, MANY]) writeFiles(path.join(folder, `${times}`), filesOf(name, code(times)));
    for (let run = 0; run < runs; run++)
      for (const times of [FEW, MANY]) {
        served.entry = path.join(folder, `${times}`, 'src/main.jsx');
        took[times].push(await tookAt(browser, address));
      }
    const of = (times, what) => ofReference(took[times], (result) => result[what]);
    const between = (what) => (of(MANY, what) - of(FEW, what)) / ((MANY - FEW) * count);
    const each = between('first');
    rows.push({ name, each });
    const all = [FEW, MANY].map(
      (n) => `${n} kits ${['first', 'again'].map((w) => of(n, w).toFixed(1)).join(', once more ')} ms`,
    );
    console.log(
      `${name.padEnd(28)} ${each.toFixed(2)} ms each (once more ${between('again').toFixed(2)}); ${all.join('; ')}; ${took[MANY][0].result.elements} elements`,
    );
  } catch (error) {
    console.log(`${name}: ${error.message.split('\n')[0]}`);
  }
}
await browser.close();
stop();
done();
if (values.table)
  for (const { name, each } of rows.sort((a, b) => (a.name < b.name ? -1 : 1)))
    console.log(`  ['${name}', ${each.toFixed(2)}],`);
