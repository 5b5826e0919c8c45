import os from 'node:os';
import path from 'node:path';
import { largeApp } from '../examples/large-app.mjs';
import { withSample } from './served.mjs';

const core = (file) => import(new URL(`../dist/core/${file}`, import.meta.url));
const { formChunks } = await core('chunks/form-chunks.js');
const { compileLoad } = await core('load/compile.js');
const { simulate } = await core('sim/simulate.js');
const { outlineOf } = await core('outline/outline.js');
const { BASELINE } = await core('plan/types.js');
const { DEFAULT_CONDITIONS } = await core('sim/conditions.js');
const { readSource } = await import('../dist/reader/read-source.js');

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
  report(
    `${said}: form chunks alone`,
    measure(() => formChunks(snapshot, BASELINE), runs),
  );
  report(
    `${said}: outline with all carried weights`,
    measure(() => outlineOf(snapshot, BASELINE, route), runs),
  );
}

const sample = path.resolve('examples/saltmarsh-ferries');
report(
  'sample: read from source',
  measure(() => readSource(sample), 5, 1),
  2000,
);
const { snapshot } = readSource(sample);
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

if (!process.argv.includes('--no-browser')) await browserToggle();
process.exitCode = missed > 0 ? 1 : 0;

/** From the key that decides to the redrawn live strip, in a real browser on the served sample. */
function browserToggle() {
  return withSample(4792, async (address, browser) => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/p/saltmarsh/split?route=/timetable`);
    await page.locator('[data-figure="interactive"]').waitFor();
    await page.getByRole('option', { name: /^ticket-dialog,/ }).click();
    const times = [];
    for (let i = 0; i < 12; i++) {
      times.push(
        await page.evaluate(async () => {
          const shown = () => document.querySelector('[data-figure="interactive"] dd').textContent;
          const was = shown();
          const began = performance.now();
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', bubbles: true }));
          while (shown() === was) await new Promise(requestAnimationFrame);
          return performance.now() - began;
        }),
      );
      await page.waitForTimeout(300);
    }
    report('browser: a toggle on the sample to the redrawn strip', median(times.slice(2)), 100);
  });
}
