// Predicts recorded page loads and judges the predictions; fits the browser's own costs and cross-checks the fit.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { parseLoadCase } from '../dist/core/formats/load-case.js';
import { playCase } from '../dist/core/formats/play-case.js';
import { REFERENCE_COSTS } from '../dist/core/sim/conditions.js';

const { values: options, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    worst: { type: 'string', default: '10' },
    json: { type: 'boolean', default: false },
    fit: { type: 'boolean', default: false },
    folds: { type: 'boolean', default: false },
  },
});
const given = path.resolve(positionals[0] ?? 'fidelity');
const inner = path.join(given, 'recordings');
const folder = fs.existsSync(inner) ? inner : given;
const names = fs.existsSync(folder) ? fs.readdirSync(folder).filter((f) => f.endsWith('.json')) : [];
if (names.length === 0) {
  console.error(`${folder} holds no recordings (*.json). Give a folder of recorded load cases.`);
  process.exit(2);
}
const recorded = names.map((name) => JSON.parse(fs.readFileSync(path.join(folder, name), 'utf8')));
const cases = recorded.map((recording) => ({ recording, translated: parseLoadCase(recording) }));

const predict = ({ translated }, costs = REFERENCE_COSTS) => {
  const { conditions } = translated;
  return playCase({ ...translated, conditions: { ...conditions, device: { ...conditions.device, costs } } });
};

if (options.folds) crossCheck();
else if (options.fit) {
  const found = fitted(cases);
  console.log(`cost ${costOf(cases, REFERENCE_COSTS).toFixed(4)} → ${costOf(cases, found).toFixed(4)}`);
  for (const [key, ms] of Object.entries(found)) console.log(`  ${key}: ${REFERENCE_COSTS[key]} → ${ms.toFixed(2)}`);
} else compare();

/** Prints the figures that the comparison prints. */
function compare() {
  const predicted = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-fidelity-'));
  for (const c of cases) fs.writeFileSync(path.join(predicted, `${c.translated.id}.json`), JSON.stringify(predict(c)));
  const args = ['fidelity/compare.mjs', predicted, '--truth', folder, '--worst', options.worst];
  const { status } = spawnSync(process.execPath, [...args, ...(options.json ? ['--json'] : [])], { stdio: 'inherit' });
  fs.rmSync(predicted, { recursive: true });
  process.exit(status ?? 1);
}

/** Relative errors of a case, by measure. */
function errorsOf(c, costs) {
  const { measured } = c.recording;
  const predicted = predict(c, costs);
  const median = (value) => (Array.isArray(value) ? value[0] : value);
  const errors = { firstContent: [], responseEnd: [], evalEnd: [], steps: [] };
  const note = (measure, is, truth, floor = 1) => {
    if (truth != null && Number.isFinite(is)) errors[measure].push(Math.abs(is - truth) / Math.max(truth, floor));
  };
  note('firstContent', predicted.firstContentfulPaint, median(measured.milestones.firstContentfulPaint));
  for (const [href, r] of Object.entries(measured.resources)) {
    if (href.includes('#') || r.initiatorType === 'early-hints' || r.seenInRuns) continue;
    note('responseEnd', predicted.resources[href]?.responseEnd, median(r.responseEnd));
  }
  for (const [href, v] of Object.entries(measured.evalEnd ?? {})) note('evalEnd', predicted.evalEnd[href], median(v));
  for (const [id, v] of Object.entries(measured.steps ?? {}))
    note('steps', predicted.steps[id], median(v.duration), 20);
  return errors;
}

function pooled(some, costs) {
  const all = { firstContent: [], responseEnd: [], evalEnd: [], steps: [] };
  for (const c of some) for (const [k, v] of Object.entries(errorsOf(c, costs))) all[k].push(...v);
  return all;
}

/** Mean error over the measures; single errors count up to 30 %, so that lossy loads don't decide. */
function costOf(some, costs) {
  const measures = Object.values(pooled(some, costs)).filter((v) => v.length > 0);
  const mean = (v) => v.reduce((sum, e) => sum + Math.min(e, 0.3), 0) / v.length;
  return measures.reduce((sum, v) => sum + mean(v), 0) / measures.length;
}

/** Coordinate descent over the browser's costs, from the present ones. */
function fitted(some) {
  let best = { ...REFERENCE_COSTS };
  let least = costOf(some, best);
  for (const step of [0.3, 0.12]) {
    for (const key of Object.keys(best)) {
      for (const by of [1 + step, 1 - step]) {
        for (;;) {
          const next = { ...best, [key]: best[key] * by };
          const cost = costOf(some, next);
          if (cost > least - 1e-5) break;
          best = next;
          least = cost;
        }
      }
    }
  }
  return best;
}

/** Fits without a family, or without a condition, and tells the error on what was left out. */
function crossCheck() {
  const quantile = (v, p) => [...v].sort((a, b) => a - b)[Math.min(v.length - 1, Math.floor(p * v.length))];
  const percent = (x) => (x === undefined ? '-' : `${(x * 100).toFixed(1)} %`);
  const groupings = {
    family: (c) => c.recording.family,
    conditions: (c) => c.translated.id.split('-').slice(0, 2).join('-'),
  };
  for (const [kind, of] of Object.entries(groupings)) {
    const left = { firstContent: [], responseEnd: [], evalEnd: [], steps: [] };
    for (const group of new Set(cases.map(of))) {
      const costs = fitted(cases.filter((c) => of(c) !== group));
      for (const [k, v] of Object.entries(
        pooled(
          cases.filter((c) => of(c) === group),
          costs,
        ),
      ))
        left[k].push(...v);
    }
    console.log(`left out by ${kind} (median / 90th percentile of what was left out):`);
    for (const [k, v] of Object.entries(left))
      console.log(`  ${k.padEnd(14)} ${percent(quantile(v, 0.5))} / ${percent(quantile(v, 0.9))}   (${v.length})`);
  }
}
