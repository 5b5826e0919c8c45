// Predicts recorded page loads and judges the predictions; fits the browser's own costs and cross-checks the fit.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { parseLoadCase } from '../dist/core/formats/load-case.js';
import { playCase } from '../dist/core/formats/play-case.js';
import { REFERENCE_COSTS } from '../dist/core/sim/conditions.js';

const MEASURES = ['firstContent', 'load', 'responseEnd', 'evalEnd', 'steps', 'text'];
const { values: options, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    worst: { type: 'string', default: '10' },
    json: { type: 'boolean', default: false },
    fit: { type: 'boolean', default: false },
    folds: { type: 'boolean', default: false },
    families: { type: 'boolean', default: false },
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

/** Prints the figures that the comparison prints. */
function compare() {
  const predicted = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-fidelity-'));
  for (const c of cases) fs.writeFileSync(path.join(predicted, `${c.translated.id}.json`), JSON.stringify(predict(c)));
  const args = ['fidelity/compare.mjs', predicted, '--truth', folder, '--worst', options.worst];
  const { status } = spawnSync(process.execPath, [...args, ...(options.json ? ['--json'] : [])], { stdio: 'inherit' });
  fs.rmSync(predicted, { recursive: true });
  process.exit(status ?? 1);
}

/** A recording's own first run in the form of a prediction. */
function firstRun({ recording }) {
  const [run] = recording.measured.raw.runs;
  return {
    firstContentfulPaint: run.nav[8],
    load: run.nav[6],
    resources: Object.fromEntries(Object.entries(run.res).map(([k, v]) => [k, { responseEnd: v[3] }])),
    evalEnd: run.evalEnd ?? {},
    steps: run.steps ?? {},
    textPaint: run.textPaint ?? {},
    textInFont: run.textInFont ?? {},
  };
}

const noErrors = () => Object.fromEntries(MEASURES.map((m) => [m, []]));

/** Relative errors of a case, by measure. */
function errorsOf(c, costs, predicted = predict(c, costs)) {
  const { measured } = c.recording;
  const median = (value) => (Array.isArray(value) ? value[0] : value);
  const errors = noErrors();
  const note = (measure, is, truth, floor = 1) => {
    if (truth != null && Number.isFinite(is)) errors[measure].push(Math.abs(is - truth) / Math.max(truth, floor));
  };
  note('firstContent', predicted.firstContentfulPaint, median(measured.milestones.firstContentfulPaint));
  note('load', predicted.load, median(measured.milestones.load));
  for (const [href, r] of Object.entries(measured.resources)) {
    if (href.includes('#') || r.initiatorType === 'early-hints' || r.seenInRuns) continue;
    note('responseEnd', predicted.resources[href]?.responseEnd, median(r.responseEnd));
  }
  for (const [href, v] of Object.entries(measured.evalEnd ?? {})) note('evalEnd', predicted.evalEnd[href], median(v));
  for (const [id, v] of Object.entries(measured.steps ?? {}))
    note('steps', predicted.steps[id], median(v.duration), 20);
  for (const field of ['textPaint', 'textInFont'])
    for (const [id, v] of Object.entries(measured[field] ?? {})) note('text', predicted[field]?.[id], median(v));
  return errors;
}

function joined(all) {
  const found = noErrors();
  for (const one of all) for (const [k, v] of Object.entries(one)) found[k].push(...v);
  return found;
}

function pooled(some, costs) {
  return joined(some.map((c) => errorsOf(c, costs)));
}

const quantile = (v, p) => [...v].sort((a, b) => a - b)[Math.min(v.length - 1, Math.floor(p * v.length))];

/** Prints each family beside its noise: how far the first run of each recording is from the middle of its runs. */
function families() {
  const cell = (v) =>
    (v.length === 0 ? '' : `${(quantile(v, 0.5) * 100).toFixed(1)} / ${(quantile(v, 0.9) * 100).toFixed(1)}`).padEnd(
      13,
    );
  console.log(`median / 90th percentile of the error in %, predicted and of a first run\n`);
  console.log(`${''.padEnd(22)}${''.padEnd(7)}${MEASURES.map((m) => m.padEnd(13)).join('')}`);
  const of = (c) => c.recording.family.replace(/[@-].*$/, '');
  for (const family of [...new Set(cases.map(of))].sort().concat('all')) {
    const own = cases.filter((c) => family === 'all' || of(c) === family);
    const predicted = pooled(own, REFERENCE_COSTS);
    const noise = joined(own.map((c) => errorsOf(c, null, firstRun(c))));
    console.log(
      `${`${family} (${own.length})`.padEnd(22)}${'model'.padEnd(7)}${MEASURES.map((m) => cell(predicted[m])).join('')}`,
    );
    console.log(`${''.padEnd(22)}${'noise'.padEnd(7)}${MEASURES.map((m) => cell(noise[m])).join('')}`);
  }
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
  const percent = (x) => (x === undefined ? '-' : `${(x * 100).toFixed(1)} %`);
  const groupings = {
    family: (c) => c.recording.family,
    conditions: (c) => c.translated.id.split('-').slice(0, 2).join('-'),
  };
  for (const [kind, of] of Object.entries(groupings)) {
    const left = noErrors();
    for (const group of new Set(cases.map(of))) {
      const costs = fitted(cases.filter((c) => of(c) !== group && !c.translated.isRandom));
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

if (options.families) families();
else if (options.folds) crossCheck();
else if (options.fit) {
  const found = fitted(cases.filter((c) => !c.translated.isRandom));
  console.log(`cost ${costOf(cases, REFERENCE_COSTS).toFixed(4)} → ${costOf(cases, found).toFixed(4)}`);
  for (const [key, ms] of Object.entries(found)) console.log(`  ${key}: ${REFERENCE_COSTS[key]} → ${ms.toFixed(2)}`);
} else compare();
