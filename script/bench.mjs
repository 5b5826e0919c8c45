import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { largeApp, writeLargeApp } from '../examples/large-app.mjs';
import { partsReport } from './parts-report.mjs';
import { withSample } from './served.mjs';

const core = (file) => import(new URL(`../dist/core/${file}`, import.meta.url));
const { formChunks } = await core('chunks/form-chunks.js');
const { compileLoad } = await core('load/compile.js');
const { simulate } = await core('sim/simulate.js');
const { outlineOf } = await core('outline/outline.js');
const { BASELINE } = await core('plan/types.js');
const { DEFAULT_CONDITIONS, DEVICES, LINKS } = await core('sim/conditions.js');
const { drawConditions, landUnder } = await core('mix/mix.js');
const { VisitCompiler } = await core('visits/program.js');
const { playVisit } = await core('visits/play.js');
const { expectWaits } = await core('visitors/expect.js');
const { modelOf } = await core('visitors/model.js');
const { advise } = await core('advise/advise.js');
const { choose } = await core('choose/choose.js');
const { planTable } = await core('compare/compare.js');
const { sourcePatch } = await import('../dist/patch/patch.js');
const { importKey } = await core('snapshot/graph-index.js');
const { readSource } = await import('../dist/reader/read-source.js');
const { exactSizes } = await import('../dist/reader/weigh.js');

let missed = 0;

/** Median of several runs, after warming up. */
function measure(run, runs = 15, warm = 3) {
  for (let i = 0; i < warm; i++) run();
  const times = Array.from({ length: runs }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  });
  return median(times);
}

function median(times) {
  return [...times].sort((a, b) => a - b)[times.length >> 1];
}

function report(name, ms, aim) {
  const ok = aim === undefined || ms <= aim;
  if (!ok) missed++;
  const beside = aim === undefined ? '' : `aim ≤ ${aim} ms   ${ok ? 'held' : 'MISSED'}`;
  console.log(`${name.padEnd(58)} ${ms.toFixed(1).padStart(9)} ms   ${beside}`);
}

function landing(snapshot, route) {
  const graph = formChunks(snapshot, BASELINE);
  return simulate(compileLoad(snapshot, BASELINE, graph, route), DEFAULT_CONDITIONS);
}

console.log(`node ${process.version}, ${os.cpus().length} × ${os.cpus()[0].model.trim()}\n`);

const sizes = { 1000: 15, 10000: 150, 100000: undefined };
for (const [count, aim] of Object.entries(sizes)) {
  const snapshot = largeApp(Number(count));
  const route = snapshot.routes[0].pattern;
  const runs = Number(count) > 50_000 ? 5 : 15;
  const requests = landing(snapshot, route).requests.length;
  const said = `${Number(count).toLocaleString('en')} modules`;
  report(
    `${said}: chunks + compile + simulate (${requests} requests)`,
    measure(() => landing(snapshot, route), runs),
    aim,
  );
  const mid = Number(count) === 10_000;
  report(
    `${said}: form chunks alone`,
    measure(() => formChunks(snapshot, BASELINE), runs),
    mid ? 60 : undefined,
  );
  let pick = 0;
  const joined = snapshot.imports.filter((i) => i.kind === 'static');
  report(
    `${said}: form chunks after one more decision`,
    measure(() => {
      pick += 977;
      const decision = { kind: 'detach', import: importKey(snapshot, joined[pick % joined.length]) };
      formChunks(snapshot, { ...BASELINE, decisions: [decision] });
    }, runs * 2),
    mid ? 20 : undefined,
  );
  report(
    `${said}: outline with all carried weights`,
    measure(() => outlineOf(snapshot, BASELINE, route), runs),
    mid ? 150 : undefined,
  );
}

{
  const form = (count) => {
    const snapshot = largeApp(count);
    return measure(() => formChunks(snapshot, BASELINE), 5);
  };
  const times = form(100_000) / form(10_000);
  console.log(
    `${'form chunks: 100,000 modules against 10,000'.padEnd(58)} ${times.toFixed(1).padStart(9)} ×    aim ≤ 12 ×`,
  );
}

/** Twelve things that a visitor of the sample does. */
const TWELVE = [
  ['scroll', 'webcams'],
  ['move', '/timetable'],
  ['act', 'fares'],
  ['act', 'ticket'],
  ['scroll', 'tide'],
  ['act', 'ticket'],
  ['move', '/sailings/:id'],
  ['act', 'deck'],
  ['move', '/book'],
  ['act', 'vehicle'],
  ['act', 'payment'],
  ['move', '/trips'],
].map(([does, on]) => {
  const pause = { dwellMs: 4000, leadMs: does === 'scroll' ? 0 : 300 };
  return does === 'move' ? { does, to: on, by: 'inside', holds: [], ...pause } : { does, part: on, ...pause };
});

function visits() {
  const { snapshot } = readSource('examples/saltmarsh-ferries');
  const compiler = new VisitCompiler(snapshot, BASELINE);
  const visit = { name: '', landing: '/', holds: [], steps: TWELVE };
  report(
    'a visit of the sample in 12 steps',
    measure(() => playVisit(compiler, visit, DEFAULT_CONDITIONS), 40, 20),
    10,
  );
  const decisions = ['src/booking/booking-page.tsx', 'src/trips/trips-page.tsx'].map((splitPoint) => ({
    kind: 'trigger',
    splitPoint,
    fetch: { on: 'approach' },
  }));
  const { model } = modelOf(snapshot);
  const under = [
    [LINKS[0], DEVICES[0], 0.5],
    [LINKS[1], DEVICES[0], 0.3],
    [LINKS[4], DEVICES[3], 0.2],
  ].map(([link, device, share]) => ({ conditions: { link, device, cache: 'empty' }, share }));
  report(
    'advice: all findings of the sample',
    measure(
      () => {
        const steps = advise(snapshot, BASELINE, model, DEFAULT_CONDITIONS);
        while (!steps.next().done);
      },
      3,
      1,
    ),
    2000,
  );
  const wanted = {
    aim: 'mean',
    limits: { changes: 20, firstContentMs: 50, wasteBytes: 100_000, spareDataSavers: false },
  };
  const circumstances = under.map((u, i) => ({ ...u, name: String(i) }));
  for (const [about, aim] of [
    ['hints', 15_000],
    ['both', 60_000],
  ]) {
    const began = performance.now();
    const steps = choose(snapshot, BASELINE, model, circumstances, { ...wanted, about });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const { candidates, turns, measured } = step.value;
    report(
      `choosing ${about}: ${candidates.length} candidates × 3 conditions, ${turns.length} taken, ${measured} sets`,
      performance.now() - began,
      aim,
    );
  }
  for (const plan of [BASELINE, { ...BASELINE, decisions }]) {
    const began = performance.now();
    const own = new VisitCompiler(snapshot, plan);
    const steps = expectWaits(own, model, under, { seed: 7, visits: 20_000, error: 0.01 });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const { visits: played, waits, rows } = step.value;
    const error = ((waits.error / waits.value) * 100).toFixed(2);
    report(
      `expected waits: ${rows.length} moves and acts, ${played} visits, error ${error} %`,
      performance.now() - began,
      5000,
    );
  }
}

/** Handing over and keeping, on the sample: plans side by side, limits from the command line, the patch. */
function handingOver() {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-bench-'));
  const sample = new URL('../examples/saltmarsh-ferries', import.meta.url).pathname;
  const { snapshot, sources } = readSource(sample);
  const own = snapshot.imports.filter((i) => i.kind === 'static' && snapshot.modules[i.from].package === null);
  const decisions = own.map((i) => ({ kind: 'detach', import: importKey(snapshot, i) }));
  const plans = [0, 1, 2, 3].map((n) => ({ ...BASELINE, name: `${n}`, decisions: decisions.slice(0, n * 2) }));
  const conditions = [0, 1, 2, 3, 4, 0].map((link, at) => ({
    link: LINKS[link],
    device: DEVICES[at === 5 ? 3 : 0],
    cache: 'empty',
  }));
  report(
    'comparing 4 plans × 6 conditions, all landings and actions',
    measure(() => plans.map((p) => planTable(snapshot, p, conditions)), 5, 1),
    1500,
  );
  report(
    'source patch of 6 decisions',
    measure(() => sourcePatch(snapshot, plans[3], sources), 9, 2),
  );
  const bin = new URL('../bin/yokeline.mjs', import.meta.url).pathname;
  const file = path.join(folder, 'sample.yokeline.json');
  const run = (...args) => spawnSync(process.execPath, [bin, ...args, '--json'], { encoding: 'utf8' });
  run('read', sample, '--out', file);
  run('limits', file, '--set-from', 'Baseline');
  const began = performance.now();
  const { status } = run('check', sample, '--project', file);
  if (status !== 0) throw new Error('the sample broke its own limits');
  report('check of the sample from cold, 39 limits', performance.now() - began, 4000);
  fs.rmSync(folder, { recursive: true });
}

/** A page whose script asks for so many files of 8 kB. */
function pageOf(files) {
  const nothing = { origin: '', serverMs: 5, cache: 'immutable', cpuMs: 1, estimatedBytes: 0, imports: [], follow: [] };
  const script = (n) => ({
    ...nothing,
    address: `/${n}.js`,
    name: `${n}`,
    type: 'script',
    bytes: 8000,
    purpose: 'start',
  });
  const resources = Array.from({ length: files - 1 }, (_, n) => script(n));
  resources[0].follow = [{ when: 'eval', do: { kind: 'import', group: 1 } }];
  return {
    document: {
      address: '/',
      bytes: 5000,
      serverMs: 50,
      cache: 'no-store',
      earlyHints: [],
      linkHeader: [],
      flush: [],
      markup: [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
    },
    resources,
    groups: [[0], resources.map((_, i) => i).slice(1)].map((of) => ({
      name: 'g',
      resources: of,
      after: [],
      loader: 'listed',
    })),
    parts: [],
    steps: [],
  };
}
report(
  'simulate: a landing with 40 requests',
  measure(() => simulate(pageOf(40), DEFAULT_CONDITIONS)),
  1.5,
);
report(
  'simulate: a landing with 500 requests',
  measure(() => simulate(pageOf(500), DEFAULT_CONDITIONS), 9),
  40,
);
visits();
handingOver();

const sample = path.resolve('examples/saltmarsh-ferries');
report(
  'sample: read from source',
  measure(() => readSource(sample), 5, 1),
  2000,
);
{
  const { snapshot } = readSource(sample);
  const program = compileLoad(snapshot, BASELINE, formChunks(snapshot, BASELINE), '/timetable');
  const mix = {
    links: LINKS.map((link) => ({ link, weight: 1 })),
    devices: DEVICES.map((device) => ({ device, weight: 1 })),
    returning: 0.3,
    spread: 0.25,
  };
  const drawn = drawConditions(mix, 1000, 1);
  const all = () => {
    for (const conditions of drawn) landUnder(program, conditions);
  };
  report('sample: 1,000 landings over a mix', measure(all, 3, 1), 2500);
}

{
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-large-'));
  writeLargeApp(folder, 10_000);
  let modules = 0;
  const ms = measure(
    () => {
      modules = readSource(folder).snapshot.modules.length;
    },
    1,
    0,
  );
  report(`generated source tree of ${modules.toLocaleString('en')} modules: read`, ms, 60_000);
  const megabytes = process.resourceUsage().maxRSS / 1024;
  console.log(
    `${'largest memory of this process so far'.padEnd(58)} ${megabytes.toFixed(0).padStart(9)} MB   aim ≤ 1500 MB`,
  );
  fs.rmSync(folder, { recursive: true, force: true });
}
const { snapshot, texts } = readSource(sample);
const graph = formChunks(snapshot, BASELINE);
const program = compileLoad(snapshot, BASELINE, graph, '/timetable');
report(
  'sample: chunks + compile + simulate',
  measure(() => landing(snapshot, '/timetable'), 50, 10),
);
report(
  'sample: simulate alone',
  measure(() => simulate(program, DEFAULT_CONDITIONS), 50, 10),
);

const wide = {
  name: 'wide',
  description: '',
  decisions: snapshot.imports.flatMap((i, at) =>
    i.kind === 'static' && at % 3 === 0 ? [{ kind: 'detach', import: importKey(snapshot, i) }] : [],
  ),
};
for (const [said, plan] of Object.entries({ 'as built': BASELINE, 'a third of the imports detached': wide }))
  sizeErrors(said, plan);

for (const example of ['saltmarsh-ferries', 'hollow-lane-library']) {
  const { right, found, noted } = partsReport(example);
  console.log(
    `${`${example}: parts proposed from code`.padEnd(58)} precision ${right} of ${found}, recall ${right} of ${noted}`,
  );
}

if (!process.argv.includes('--no-browser')) {
  await browserToggle();
  for (const count of [10_000, 50_000]) await browserLarge(count);
}
process.exitCode = missed > 0 ? 1 : 0;

/** How far the live estimate of chunk sizes is from really compressing them. */
function sizeErrors(said, plan) {
  const errors = formChunks(snapshot, plan).chunks.map((chunk) => {
    const exact = exactSizes(chunk.modules.map((m) => texts[snapshot.modules[m].path])).gzip;
    return { bytes: chunk.bytes.minified, off: Math.abs(chunk.bytes.gzip - chunk.overhead.gzip - exact) / exact };
  });
  const large = errors.filter((e) => e.bytes > 20_000).map((e) => e.off);
  share(`sample, ${said}: size estimate, median of ${errors.length} chunks`, median(errors.map((e) => e.off)), 0.03);
  share(`sample, ${said}: size estimate, worst of ${large.length} chunks over 20 kB`, Math.max(...large), 0.08);
}

function share(name, value, aim) {
  const ok = value <= aim;
  if (!ok) missed++;
  console.log(
    `${name.padEnd(70)} ${(value * 100).toFixed(1).padStart(5)} %   aim ≤ ${aim * 100} %   ${ok ? 'held' : 'MISSED'}`,
  );
}

/** From the key that decides to the redrawn live strip, in a real browser on the served sample. */
function browserToggle() {
  return withSample(async (address, context) => {
    const page = await context.newPage();
    await page.goto(`${address}/p/saltmarsh/split?route=/timetable`);
    await page.locator('[data-figure="interactive"]').waitFor();
    // Each import once: a plan that was worked out before would be answered from memory.
    const names = ['ticket-dialog', 'berth-finder', 'fare-calculator', 'tide-level', '@saltmarsh/datelog'];
    const times = [];
    for (const name of names) {
      await page
        .getByRole('option', { name: new RegExp(`^${name} ?,`) })
        .first()
        .click();
      await page.waitForTimeout(400);
      times.push(
        await page.evaluate(async () => {
          const shown = () => document.querySelector('dl:has([data-figure])').textContent;
          const was = shown();
          const began = performance.now();
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', bubbles: true }));
          while (shown() === was && performance.now() - began < 5000) await new Promise(requestAnimationFrame);
          return performance.now() - began;
        }),
      );
      await page.waitForTimeout(400);
    }
    report('browser: a toggle on the sample to the redrawn strip', median(times), 100);
  });
}

/** Opening, searching and scrolling a large project in a real browser on the served program. */
function browserLarge(count) {
  return withSample(async (address, context) => {
    const snapshot = largeApp(count);
    const texts = Object.fromEntries(
      snapshot.modules.map((m, i) => [m.path, `const a${i}="phrase ${i} of module";`.padEnd(m.bytes.minified, 'x()+')]),
    );
    const file = { format: 'yokeline-project', version: 1, snapshot, plans: [], texts };
    const answer = await fetch(`${address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ fileName: 'large.json', text: JSON.stringify(file) }),
    });
    const { id } = await answer.json();
    const said = `browser: ${count.toLocaleString('en')} modules`;
    const large = count > 10_000;
    const opened = [];
    for (let run = 0; run < 3; run++) {
      const page = await context.newPage();
      const began = performance.now();
      await page.goto(`${address}/p/${id}/startup`);
      await page.locator('[data-figure="interactive"]').waitFor();
      opened.push(performance.now() - began);
      await page.close();
    }
    report(`${said}: open to the first prediction`, median(opened), large ? undefined : 2000);

    const page = await context.newPage();
    const stock = performance.now();
    await page.goto(`${address}/p/${id}/inventory`);
    await page.getByLabel('Where is').waitFor();
    report(`${said}: open to the whole inventory`, performance.now() - stock);
    const names = [];
    for (const text of ['r3/m17', 'p12/', 'frame']) {
      await page.getByLabel('Where is').fill('');
      names.push(await shown(page, text));
    }
    report(`${said}: a name typed to the list shown`, median(names), large ? undefined : 100);
    const phrases = [];
    for (const n of [1, 4000, 7000, count - 1]) {
      const began = performance.now();
      await fetch(`${address}/api/projects/${id}/search?q=phrase%20${n}%20of`).then((r) => r.json());
      if (n > 1) phrases.push(performance.now() - began);
    }
    report(`${said}: a phrase searched in all texts (from the second on)`, median(phrases), large ? undefined : 100);
    await page.getByLabel('Where is').fill('');
    await page.getByRole('tab', { name: /modules/ }).click();
    const slowest = await page.evaluate(async () => {
      const list = document.querySelector('[role="tabpanel"] .h-72');
      const frames = [];
      let last = performance.now();
      for (let i = 0; i < 90; i++) {
        list.scrollTop += 400;
        await new Promise(requestAnimationFrame);
        const now = performance.now();
        frames.push(now - last);
        last = now;
      }
      return frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)];
    });
    report(`${said}: a frame while the list of modules is scrolled, 95th percentile`, slowest);
    await page.close();
  });
}

/** From typing a name to the list that shows it. */
function shown(page, text) {
  return page.evaluate(async (wanted) => {
    const input = document.getElementById('finder');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
    const began = performance.now();
    set.call(input, wanted);
    input.dispatchEvent(new Event('input', { bubbles: true }));
    const found = () => input.closest('search').textContent.includes(wanted.replace(/^.*\//, ''));
    while (!found() && performance.now() - began < 5000) await new Promise(requestAnimationFrame);
    return performance.now() - began;
  }, text);
}
