// Weighs widely used packages as a reading does, and lays that beside the minified files that their makers ship: `node script/weights.mjs`.
// They are installed into a folder of their own, without running anything of them; nothing of the program needs them. Build
// first: npm run build:node. Aims: half of them within 2 %, all within 6 %.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const { minifyScript } = await import('../dist/reader/weigh.js');

/** Package and version, its file as written, and the same as shipped minified; without `.js`. */
const PACKAGES = [
  ['lodash@4.17.21', 'lodash', 'lodash.min'],
  ['moment@2.30.1', 'moment', 'min/moment.min'],
  ['d3@7.9.0', 'dist/d3', 'dist/d3.min'],
  ['jquery@3.7.1', 'dist/jquery', 'dist/jquery.min'],
  ['bootstrap@5.3.3', 'dist/js/bootstrap', 'dist/js/bootstrap.min'],
  ['rxjs@7.8.1', 'dist/bundles/rxjs.umd', 'dist/bundles/rxjs.umd.min'],
  ['immutable@4.3.7', 'dist/immutable', 'dist/immutable.min'],
  ['underscore@1.13.7', 'underscore-umd', 'underscore-umd-min'],
  ['luxon@3.5.0', 'build/global/luxon', 'build/global/luxon.min'],
  ['axios@1.7.7', 'dist/axios', 'dist/axios.min'],
  ['dompurify@3.1.7', 'dist/purify', 'dist/purify.min'],
  ['fuse.js@7.0.0', 'dist/fuse', 'dist/fuse.min'],
  ['leaflet@1.9.4', 'dist/leaflet-src', 'dist/leaflet'],
  ['sortablejs@1.15.3', 'Sortable', 'Sortable.min'],
  ['@popperjs/core@2.11.8', 'dist/umd/popper', 'dist/umd/popper.min'],
  ['handlebars@4.7.8', 'dist/handlebars', 'dist/handlebars.min'],
  ['chart.js@2.9.4', 'dist/Chart', 'dist/Chart.min'],
  ['clipboard@2.0.11', 'dist/clipboard', 'dist/clipboard.min'],
  ['flatpickr@4.6.13', 'dist/flatpickr', 'dist/flatpickr.min'],
  ['swiper@11.1.14', 'swiper-bundle', 'swiper-bundle.min'],
];
const AIMS = { median: 2, worst: 6 };

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-weights-'));
fs.writeFileSync(path.join(folder, 'package.json'), '{ "private": true }');
execFileSync('npm', ['install', '--ignore-scripts', '--no-audit', '--no-fund', ...PACKAGES.map(([name]) => name)], {
  cwd: folder,
  stdio: ['ignore', 'ignore', 'inherit'],
});
/** Without the notes on licences and maps, which differ from file to file. */
const plain = (text) => text.replace(/^\s*(\/\*[\s\S]*?\*\/\s*)+/, '').replace(/\/\/# sourceMappingURL=.*\s*$/, '');
const rows = PACKAGES.map(([name, written, shipped]) => {
  const at = (file) => path.join(folder, 'node_modules', name.slice(0, name.lastIndexOf('@')), `${file}.js`);
  const own = Buffer.byteLength(minifyScript('x.js', fs.readFileSync(at(written), 'utf8')));
  const theirs = Buffer.byteLength(plain(fs.readFileSync(at(shipped), 'utf8')));
  return { package: name, ours: own, shipped: theirs, 'off by %': Number((100 * (own / theirs - 1)).toFixed(1)) };
});
fs.rmSync(folder, { recursive: true });
console.table(rows);
const off = rows.map((r) => Math.abs(r['off by %'])).sort((a, b) => a - b);
const median = (off[off.length / 2 - 1] + off[off.length / 2]) / 2;
console.log(`median ${median.toFixed(1)} % (aim ${AIMS.median}), worst ${off.at(-1)} % (aim ${AIMS.worst})`);
process.exitCode = median > AIMS.median || off.at(-1) > AIMS.worst ? 1 : 0;
