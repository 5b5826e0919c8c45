// Reads, cuts, simulates and hands over a generated app of 50,000 modules, 60 routes and 300 split points; prints time and
// memory of each step, each in a process of its own. Build first: npm run build:node. Another size: node script/size.mjs 20000
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { writeLargeApp } from '../examples/large-app.mjs';

const core = (file) => import(new URL(`../dist/core/${file}`, import.meta.url));
const [what = '50000', step, folder] = process.argv.slice(2);
const file = folder && path.join(folder, 'app.yokeline.json');

/** The project as read, for the steps after that. */
async function project() {
  const { parseProject } = await core('formats/project-file.js');
  return parseProject(fs.readFileSync(file, 'utf8'), file);
}

const STEPS = {
  async read() {
    const { readSource } = await import('../dist/reader/read-source.js');
    const { writeProject } = await core('formats/project-file.js');
    const began = performance.now();
    const { snapshot, sources } = readSource(path.join(folder, 'app'));
    const ms = performance.now() - began;
    const head = { format: 'yokeline-project', version: 1, plans: [] };
    const amendments = { confirmed: true, base: null, routes: [], keep: [] };
    fs.writeFileSync(file, writeProject({ ...head, snapshot, amendments, sources }));
    const deferred = snapshot.imports.filter((i) => i.kind === 'dynamic').length;
    return {
      ms,
      words: `${snapshot.modules.length} modules, ${snapshot.imports.length} imports, ${deferred} deferred, ${snapshot.routes.length} routes`,
    };
  },
  async open() {
    const began = performance.now();
    const { snapshot } = await project();
    return {
      ms: performance.now() - began,
      words: `${Math.round(fs.statSync(file).size / 1e6)} MB of project file, ${snapshot.modules.length} modules checked`,
    };
  },
  async split() {
    const { planned } = await core('chunks/planned.js');
    const { importKey } = await core('snapshot/graph-index.js');
    const { snapshot } = await project();
    const plan = { name: 'P', description: '', decisions: [] };
    const cold = performance.now();
    planned(snapshot, plan);
    const first = performance.now() - cold;
    const one = snapshot.imports.find(
      (i) => i.kind === 'static' && snapshot.modules[i.from].path.startsWith('src/r7/'),
    );
    const began = performance.now();
    const { graph } = planned(snapshot, { ...plan, decisions: [{ kind: 'detach', import: importKey(snapshot, one) }] });
    return {
      ms: performance.now() - began,
      words: `one more decision; ${Math.round(first)} ms the first time; ${graph.chunks.length} chunks, ${graph.roots.length} roots`,
    };
  },
  async simulate() {
    const { predict } = await core('predict/predict.js');
    const { BASELINE } = await core('plan/types.js');
    const { DEFAULT_CONDITIONS } = await core('sim/conditions.js');
    const { snapshot } = await project();
    predict(snapshot, BASELINE, snapshot.routes[0].pattern, DEFAULT_CONDITIONS);
    const began = performance.now();
    const { reading } = predict(snapshot, BASELINE, snapshot.routes.at(-1).pattern, DEFAULT_CONDITIONS);
    return { ms: performance.now() - began, words: `a landing, ${reading.readout.requests} requests` };
  },
  async 'hand over'() {
    const { handoff } = await core('handoff/handoff.js');
    const { review } = await core('handoff/review.js');
    const { importKey } = await core('snapshot/graph-index.js');
    const { DEFAULT_CONDITIONS } = await core('sim/conditions.js');
    const { sourcePatch } = await import('../dist/patch/patch.js');
    const { snapshot, sources } = await project();
    const joined = snapshot.imports.filter((i) => i.kind === 'dynamic').slice(0, 20);
    const decisions = joined.map((i) => ({ kind: 'join', import: importKey(snapshot, i) }));
    const plan = { name: 'P', description: '', decisions };
    const began = performance.now();
    const { artefacts } = handoff(snapshot, plan, null);
    const texts = performance.now() - began;
    const { files } = sourcePatch(snapshot, plan, sources);
    const patch = performance.now() - began - texts;
    const reviewed = review(snapshot, plan, DEFAULT_CONDITIONS);
    return {
      ms: performance.now() - began,
      words: `${artefacts.length} texts in ${Math.round(texts)} ms, a patch of ${files.length} files in ${Math.round(patch)} ms, then ${reviewed.length} texts for the review`,
    };
  },
};

if (step) {
  const { ms, words } = await STEPS[step]();
  console.log(JSON.stringify({ ms, words, mb: process.resourceUsage().maxRSS / 1000 }));
} else {
  const made = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-size-'));
  try {
    console.log(`node ${process.version}, ${os.cpus().length} × ${os.cpus()[0].model.trim()}`);
    // A few of the modules that are written are reached by nothing.
    writeLargeApp(path.join(made, 'app'), Math.round(Number(what) * 1.05), 0.009);
    for (const name of Object.keys(STEPS)) {
      const args = ['--max-old-space-size=8000', process.argv[1], what, name, made];
      const { stdout, stderr, status } = spawnSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e8 });
      if (status !== 0) throw new Error(`${name}: ${stderr.slice(0, 500)}`);
      const { ms, mb, words } = JSON.parse(stdout);
      console.log(
        `${name.padEnd(10)} ${(ms / 1000).toFixed(2).padStart(8)} s  ${Math.round(mb).toString().padStart(6)} MB  ${words}`,
      );
    }
  } finally {
    fs.rmSync(made, { recursive: true, force: true });
  }
}
