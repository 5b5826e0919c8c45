// Plans side by side, the patch, and limits from the command line, on the sample.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { measure, report } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { planTable } = await core('compare/compare.js');
const { BASELINE } = await core('plan/types.js');
const { DEVICES, LINKS } = await core('sim/conditions.js');
const { importKey } = await core('snapshot/graph-index.js');
const { sourcePatch } = await import('../../dist/patch/patch.js');

/** Handing over and keeping, on the sample: plans side by side, limits from the command line, the patch. */
export function handingOver(sample, { snapshot, sources }) {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-bench-'));
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
  const bin = new URL('../../bin/yokeline.mjs', import.meta.url).pathname;
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
