// Lays the live estimate of chunks' sizes beside what they really weigh once compressed, for apps that take what apps take of widely used
// packages, cut in several ways: `node script/sizes.mjs [APP…] [--keep DIR] [--each]`. The packages are installed into a folder of their own, without
// running anything of them; nothing of the program needs them. Build first: npm run build:node. Chunks below 10 kB aren't judged.
import path from 'node:path';
import { parseArgs } from 'node:util';
import { installInto, madeFolder, writeFiles } from './made-apps.mjs';
import { APPS, filesOf, PACKAGES } from './sizing/apps.mjs';

const core = (file) => import(new URL(`../dist/core/${file}`, import.meta.url));
const { readSource } = await import('../dist/reader/read-source.js');
const { exactSizes } = await import('../dist/reader/weigh.js');
const { planned } = await core('chunks/planned.js');
const { estimateBytes } = await core('chunks/sizes.js');
const { BASELINE } = await core('plan/types.js');

const { values, positionals: only } = parseArgs({
  allowPositionals: true,
  options: { keep: { type: 'string' }, each: { type: 'boolean' } },
});
const { folder: home, done } = madeFolder(values.keep, 'sizes');
const AIMS = { median: 0.02, worst: 0.06 };
const JUDGED = 10_000;

installInto(home, PACKAGES);

/** Ways to cut: as built; with small files joined; with few files; with small ones copied. */
const SHAPES = [
  ['as built', []],
  ['two files', [{ kind: 'ceiling', requests: 2 }]],
  ['floor of 40 kB', [{ kind: 'floor', bytes: 40_000 }]],
  ['floor of 200 kB', [{ kind: 'floor', bytes: 200_000 }]],
  ['copies below 30 kB', [{ kind: 'copy', below: 30_000 }]],
];
const percent = (share) => `${share >= 0 ? '+' : ''}${(100 * share).toFixed(1)} %`;
const offs = [];
for (const app of Object.entries(APPS).filter(([name]) => only.length === 0 || only.includes(name))) {
  const folder = path.join(home, 'apps', app[0]);
  writeFiles(folder, filesOf(app));
  const began = performance.now();
  const { snapshot, texts } = readSource(folder, { workspace: home });
  const total = snapshot.modules.reduce((sum, m) => sum + m.bytes.minified, 0);
  console.log(
    `${app[0]}: ${snapshot.modules.length} modules, ${Math.round(total / 1000)} kB minified, read in ${Math.round(performance.now() - began)} ms`,
  );
  for (const [shape, decisions] of SHAPES) {
    const { graph } = planned(snapshot, { ...BASELINE, decisions });
    for (const chunk of graph.chunks) {
      const exact = exactSizes(chunk.modules.map((m) => texts[snapshot.modules[m].path])).gzip;
      if (exact < JUDGED || chunk.modules.length < 2) continue;
      // The files are weighed without what a build puts around modules, which is an assumption.
      const off = estimateBytes(snapshot, chunk.modules).gzip / exact - 1;
      offs.push(off);
      if (values.each)
        console.log(
          `  ${shape.padEnd(20)} ${chunk.name.padEnd(30)} ${String(chunk.modules.length).padStart(5)} modules ${String(exact).padStart(8)} B ${percent(off)}`,
        );
    }
  }
}
done();
const sizes = offs.map(Math.abs).sort((a, b) => a - b);
const [median, worst] = [sizes[sizes.length >> 1], sizes.at(-1)];
console.log(
  `${offs.length} chunks over 10 kB: off by ${percent(median)} (median, aim ${percent(AIMS.median)}), ${percent(worst)} at worst (aim ${percent(AIMS.worst)})`,
);
process.exitCode = median > AIMS.median || worst > AIMS.worst ? 1 : 0;
