// Weighs widely used packages as a reading does, and lays that beside the minified files that their makers ship: `node script/weights.mjs`.
// They are installed into a folder of their own, without running anything of them; nothing of the program needs them. Build
// first: npm run build:node. Aims: half of them within 2 %, all within 6 %.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const { minifyScript } = await import('../dist/reader/weigh.js');

/** Package and version, its file as written, and the same as shipped minified. */
const PACKAGES = [
  ['lodash@4.17.21', 'lodash.js', 'lodash.min.js'],
  ['moment@2.30.1', 'moment.js', 'min/moment.min.js'],
  ['d3@7.9.0', 'dist/d3.js', 'dist/d3.min.js'],
  ['jquery@3.7.1', 'dist/jquery.js', 'dist/jquery.min.js'],
  ['bootstrap@5.3.3', 'dist/js/bootstrap.js', 'dist/js/bootstrap.min.js'],
  ['rxjs@7.8.1', 'dist/bundles/rxjs.umd.js', 'dist/bundles/rxjs.umd.min.js'],
  ['immutable@4.3.7', 'dist/immutable.js', 'dist/immutable.min.js'],
  ['underscore@1.13.7', 'underscore-umd.js', 'underscore-umd-min.js'],
  ['luxon@3.5.0', 'build/global/luxon.js', 'build/global/luxon.min.js'],
  ['axios@1.7.7', 'dist/axios.js', 'dist/axios.min.js'],
  ['dompurify@3.1.7', 'dist/purify.js', 'dist/purify.min.js'],
  ['fuse.js@7.0.0', 'dist/fuse.js', 'dist/fuse.min.js'],
  ['leaflet@1.9.4', 'dist/leaflet-src.js', 'dist/leaflet.js'],
  ['sortablejs@1.15.3', 'Sortable.js', 'Sortable.min.js'],
  ['@popperjs/core@2.11.8', 'dist/umd/popper.js', 'dist/umd/popper.min.js'],
  ['handlebars@4.7.8', 'dist/handlebars.js', 'dist/handlebars.min.js'],
  ['chart.js@2.9.4', 'dist/Chart.js', 'dist/Chart.min.js'],
  ['clipboard@2.0.11', 'dist/clipboard.js', 'dist/clipboard.min.js'],
  ['flatpickr@4.6.13', 'dist/flatpickr.js', 'dist/flatpickr.min.js'],
  ['swiper@11.1.14', 'swiper-bundle.js', 'swiper-bundle.min.js'],
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
  const at = (file) => path.join(folder, 'node_modules', name.slice(0, name.lastIndexOf('@')), file);
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
