import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { largeApp } from '../examples/large-app.mjs';

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

/** From the click on a decision to the redrawn live strip, in a real browser on the served sample. */
async function browserToggle() {
  const { chromium } = await import('playwright-core');
  const data = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-bench-'));
  const env = { ...process.env, YOKELINE_DATA: data, NODE_ENV: 'production' };
  execFileSync(process.execPath, ['dist/server/seed.js'], { env });
  const port = 4792;
  const server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(port)],
    { env, stdio: 'ignore' },
  );
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  });
  try {
    for (let tries = 0; tries < 100; tries++) {
      if (
        await fetch(`http://127.0.0.1:${port}/api/projects`).then(
          (r) => r.ok,
          () => false,
        )
      )
        break;
      await new Promise((wake) => setTimeout(wake, 200));
    }
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${port}/p/saltmarsh/split?route=/timetable`);
    await page.locator('[data-figure="interactive"]').waitFor();
    await page.getByRole('option', { name: /^ticket-dialog,/ }).click();
    const times = [];
    for (let i = 0; i < 12; i++) {
      times.push(
        await page.evaluate(async () => {
          const strip = document.querySelector('[data-figure="interactive"] dd');
          const was = strip.textContent;
          const began = performance.now();
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', bubbles: true }));
          while (document.querySelector('[data-figure="interactive"] dd').textContent === was)
            await new Promise(requestAnimationFrame);
          return performance.now() - began;
        }),
      );
      await page.waitForTimeout(300);
    }
    report('browser: a toggle on the sample to the redrawn strip', median(times.slice(2)), 100);
  } finally {
    await browser.close();
    server.kill();
    fs.rmSync(data, { recursive: true, force: true });
  }
}
