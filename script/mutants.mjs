// Makes single mistakes in the code of folders, one after the other, and tells which of them no test notices.
// Usage: node script/mutants.mjs FOLDER-OR-FILE… [--most N] [--seed N] [--tests FOLDER-OR-FILE|own]… [--longest S] [--jobs N] [--list]
//   node script/mutants.mjs src/core/metrics --most 30              with the tests of that folder
//   node script/mutants.mjs src/core/* --most 20 --tests src/core   with all tests of the core
//   node script/mutants.mjs src/core/ship --tests own --tests src/pinned.test.ts
// The mistakes are drawn at random (the same seed draws the same); each is tried with the tests that run it, the fastest
// first. Rows of tables (measurements, say) are left alone. What no test runs survives; what makes a test hang is noticed. Survivors are printed as they are found. Test files
// that take longer than --longest seconds (60) aren't asked, which is said: a score is then the least that it can be.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { pointsOf, withSwitches } from './mutating/points.mjs';

const { values, positionals: folders } = parseArgs({
  allowPositionals: true,
  options: {
    most: { type: 'string' },
    seed: { type: 'string' },
    tests: { type: 'string', multiple: true },
    longest: { type: 'string' },
    jobs: { type: 'string' },
    list: { type: 'boolean' },
  },
});
if (folders.length === 0 || folders.some((f) => !fs.existsSync(f))) {
  console.error('Name folders: node script/mutants.mjs src/core/metrics');
  process.exit(2);
}
const most = Number(values.most ?? 30);
const longest = Number(values.longest ?? 60) * 1000;
const jobs = Number(values.jobs ?? os.availableParallelism());
let state = Number(values.seed ?? 1);
const COPIED = ['src', 'script', 'docs', 'examples', 'fidelity', 'package.json', 'jest.config.mjs', 'dist', 'bin'];

/** Numbers from 0 to 1, always the same for a seed (mulberry32). */
function random() {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
}

function filesIn(folder, fits) {
  if (fs.statSync(folder).isFile()) return fits(folder) ? [folder] : [];
  return fs
    .readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((f) => path.join(folder, f))
    .filter(fits)
    .sort();
}
const folderOf = (place) => (fs.statSync(place).isFile() ? path.dirname(place) : place);
const isTest = (file) => /\.test\.tsx?$/.test(file);
const isSource = (file) => /\.tsx?$/.test(file) && !isTest(file);

/** Places of a folder at which something is made wrong, drawn from all there are. */
function drawn(folder) {
  const all = filesIn(folder, isSource).flatMap((file) =>
    pointsOf(file, fs.readFileSync(file, 'utf8')).map((point) => ({ ...point, file, folder })),
  );
  for (let i = all.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [all[i], all[j]] = [all[j], all[i]];
  }
  return all.slice(0, most);
}
const mutants = folders.flatMap(drawn).map((point, id) => ({ ...point, id }));
const words = ({ file, line, what }) => `${file}:${line}: ${what}`;
if (values.list) {
  for (const m of mutants) console.log(words(m));
  process.exit(0);
}

const copy = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-mutants-'));
process.on('exit', () => fs.rmSync(copy, { recursive: true, force: true }));
process.on('SIGTERM', () => process.exit(1));
process.on('SIGINT', () => process.exit(1));
for (const name of COPIED) if (fs.existsSync(name)) fs.cpSync(name, path.join(copy, name), { recursive: true });
fs.symlinkSync(path.resolve('node_modules'), path.join(copy, 'node_modules'));
for (const file of new Set(mutants.map((m) => m.file))) {
  const own = mutants.filter((m) => m.file === file);
  fs.writeFileSync(path.join(copy, file), withSwitches(file, fs.readFileSync(file, 'utf8'), own));
}
fs.writeFileSync(
  path.join(copy, 'switch.cjs'),
  `const on = Number(process.env.MUTANT ?? -1);
const hit = new Set();
globalThis.__mutantOn = (id) => {
  if (!hit.has(id)) {
    hit.add(id);
    if (process.env.HITS) require('node:fs').appendFileSync(process.env.HITS, id + '\\n');
  }
  return id === on;
};
`,
);
fs.writeFileSync(
  path.join(copy, 'mutants.config.mjs'),
  `import base from './jest.config.mjs';
export default { ...base, setupFiles: ['<rootDir>/switch.cjs'], testTimeout: 120000, bail: 1, maxWorkers: 1 };
`,
);

// What a reader without mistakes found out of a text is true for all of them.
const ofReader = mutants.some((m) => m.file.startsWith('src/reader/'));
const readings = { YOKELINE_READING_CACHE: ofReader ? 'off' : path.join(copy, 'readings') };

/** Runs one test file with a mutant on (−1: none); gives whether it passed, how long it took, and past what it came. */
function run(test, mutant, limit) {
  const begun = Date.now();
  const hits = path.join(copy, `hits-${mutant}-${test.replaceAll('/', '-')}`);
  const env = { ...process.env, ...readings, MUTANT: String(mutant), ...(mutant < 0 ? { HITS: hits } : {}) };
  const jest = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js', '--forceExit'];
  return new Promise((done) => {
    const child = spawn(process.execPath, [...jest, '--config', 'mutants.config.mjs', '--runTestsByPath', test], {
      cwd: copy,
      env,
      stdio: 'ignore',
      timeout: limit,
      killSignal: 'SIGKILL',
    });
    child.on('exit', (code) => {
      const ran = fs.existsSync(hits) ? fs.readFileSync(hits, 'utf8').split('\n').filter(Boolean).map(Number) : [];
      done({ passed: code === 0, ms: Date.now() - begun, ran: new Set(ran) });
    });
  });
}

/** Works through a list, several at a time. */
async function each(list, work) {
  const open = [...list];
  const line = async () => {
    for (let item = open.shift(); item !== undefined; item = open.shift()) await work(item);
  };
  await Promise.all(Array.from({ length: jobs }, line));
}

const known = [];
await each(
  [
    ...new Set(
      (values.tests ?? ['own'])
        .flatMap((t) => (t === 'own' ? folders.map(folderOf) : [t]))
        .flatMap((f) => filesIn(f, isTest)),
    ),
  ],
  async (test) => {
    const { passed, ms, ran } = await run(test, -1, 900_000);
    if (!passed) console.error(`${test} fails as it is: it says nothing here`);
    else if (ran.size > 0 && ms > longest) console.error(`${test} takes ${Math.round(ms / 1000)} s and isn't asked`);
    else if (ran.size > 0) known.push({ test, ms, ran });
  },
);
known.sort((a, b) => a.ms - b.ms);

const noticed = new Set();
await each(mutants, async (mutant) => {
  const { id } = mutant;
  for (const { test, ms, ran } of known) {
    if (!ran.has(id)) continue;
    const { passed } = await run(test, id, ms * 4 + 20_000);
    if (passed) continue;
    noticed.add(id);
    return;
  }
  const runs = known.some((k) => k.ran.has(id));
  console.log(`survived: ${words(mutant)}${runs ? '' : ' (no test runs it)'}`);
});

for (const folder of folders) {
  const own = mutants.filter((m) => m.folder === folder);
  const killed = own.filter((m) => noticed.has(m.id)).length;
  const share = Math.round((killed / Math.max(1, own.length)) * 100);
  console.log(`${folder}: ${killed} of ${own.length} noticed (${share} %)`);
}
