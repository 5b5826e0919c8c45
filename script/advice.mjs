import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { AppInTheMaking } from './advising/app.mjs';
import { oneOf } from './advising/code.mjs';
import { MISTAKES } from './advising/mistakes.mjs';

// Judges advice by made-up apps with planted mistakes: how many are found, at the right line, what else is advised, and
// whether a patch read again does what was promised. Build first: npm run build:node.
// Usage: node script/advice.mjs [--apps N] [--seed N] [--clean N] [--each] [--keep FOLDER]
const { values } = parseArgs({
  options: {
    apps: { type: 'string', default: '20' },
    seed: { type: 'string', default: '1' },
    clean: { type: 'string', default: '4' },
    each: { type: 'boolean' },
    keep: { type: 'string' },
  },
});
const { readSource } = await import('../dist/reader/read-source.js');
const { advise } = await import('../dist/core/advise/advise.js');
const { finish } = await import('../dist/core/steps.js');
const { modelOf } = await import('../dist/core/visitors/model.js');
const { planWith } = await import('../dist/core/plan/decisions.js');
const { BASELINE } = await import('../dist/core/plan/types.js');
const { seeded } = await import('../dist/core/sim/random.js');
const { LINKS, DEVICES } = await import('../dist/core/sim/conditions.js');
const { sourcePatch } = await import('../dist/patch/patch.js');
const { Scorer } = await import('../dist/core/advise/score.js');
const { Compilations } = await import('../dist/core/advise/compiled.js');

const CONDITIONS = { link: LINKS[0], device: DEVICES[0], cache: 'empty' };
const PER_APP = 3;
const COUNTS = 10;

/** A folder with the files of an app. */
function written(files, name) {
  const folder = values.keep
    ? path.join(values.keep, name)
    : fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-advice-'));
  for (const [file, text] of files) {
    fs.mkdirSync(path.dirname(path.join(folder, file)), { recursive: true });
    fs.writeFileSync(path.join(folder, file), text);
  }
  return folder;
}

function made(seed, mistakes) {
  const random = seeded(seed);
  const app = new AppInTheMaking(random);
  const kinds = Object.keys(MISTAKES);
  const left = values.each ? [kinds[seed % kinds.length]] : kinds;
  for (let planted = 0; planted < mistakes && left.length > 0; ) {
    const kind = values.each ? left.shift() : left.splice(left.indexOf(oneOf(random, left)), 1)[0];
    if (MISTAKES[kind](app) !== false) planted++;
  }
  return { files: app.write(), planted: app.planted };
}

const lineOf = (files, file, text) => (files.get(file) ?? '').split('\n').findIndex((l) => l.includes(text)) + 1;
/** What a finding speaks of: modules and addresses of its evidence and decisions, and its words. */
const wordsOf = (f) => JSON.stringify([f.what, f.why, f.evidence, f.remedy.decisions, f.routes]);

function judge(name, { files, planted }) {
  const folder = written(files, name);
  const { snapshot, sources } = readSource(folder);
  const { model } = modelOf(snapshot);
  const { findings } = finish(advise(snapshot, BASELINE, model, CONDITIONS));
  const rows = planted.map((m) => {
    const lines = m.at.map(([file, text]) => [file, lineOf(files, file, text)]);
    const at = findings.findIndex((f) => m.kinds.includes(f.kind) && wordsOf(f).includes(m.target));
    const [named] = findings[at]?.evidence ?? [];
    const right = named !== undefined && lines.some(([file, line]) => named.from === file && named.line === line);
    return { kind: m.kind, at, right, named, lines };
  });
  const meant = new Set(rows.map((r) => r.at));
  const others = findings.flatMap((f, at) =>
    meant.has(at) || planted.some((m) => m.kinds.includes(f.kind) && wordsOf(f).includes(m.target)) ? [] : [f],
  );
  // What pays only after others, or elsewhere, is promised for there.
  const here = findings.filter((f) => f.basis.on === 'the plan');
  const effects = here.flatMap((f) => effectAfterPatch(folder, snapshot, sources, model, f));
  if (!values.keep) fs.rmSync(folder, { recursive: true });
  return { name, rows, others, findings, effects };
}

/** What a patch of one finding, applied and read again, does to the cost, beside what was promised; nothing where it makes none. */
function effectAfterPatch(folder, snapshot, sources, model, finding) {
  const plan = planWith(BASELINE, finding.remedy);
  const { diff, steps } = sourcePatch(snapshot, plan, sources);
  if (diff === '' || steps.some((s) => s.state !== 'edited') || Math.abs(finding.effect.cost) < COUNTS) return [];
  const copy = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-patched-'));
  try {
    fs.cpSync(folder, copy, { recursive: true });
    execFileSync('git', ['apply', '-'], { cwd: copy, input: diff, stdio: ['pipe', 'pipe', 'pipe'] });
    const again = readSource(copy).snapshot;
    const cost = (app) => new Scorer(app, model, CONDITIONS, new Compilations(app, model)).score(BASELINE).cost;
    return [{ id: finding.id, promised: finding.effect.cost, done: cost(again) - cost(snapshot) }];
  } catch (error) {
    return [{ id: finding.id, promised: finding.effect.cost, done: Number.NaN, error: String(error).slice(0, 300) }];
  } finally {
    fs.rmSync(copy, { recursive: true });
  }
}

const total = { planted: 0, found: 0, right: 0, advised: 0, wrong: 0, promised: 0, kept: 0, first: 0 };
const kinds = new Map();
const count = Number(values.apps);
for (let at = 0; at < count + Number(values.clean); at++) {
  const clean = at >= count;
  const seed = Number(values.seed) * 1000 + at;
  const { name, rows, others, findings, effects } = judge(
    `app-${seed}`,
    made(seed, clean ? 0 : values.each ? 1 : PER_APP),
  );
  console.log(`${name}${clean ? ' (nothing planted)' : ''}`);
  for (const r of rows) {
    const of = kinds.get(r.kind) ?? { planted: 0, found: 0, right: 0 };
    kinds.set(r.kind, of);
    for (const sums of [of, total]) {
      sums.planted++;
      if (r.at >= 0) sums.found++;
      if (r.right) sums.right++;
    }
    const where = r.named ? `${r.named.from}:${r.named.line}` : 'no line';
    console.log(
      `  ${r.at < 0 ? 'MISSED' : r.right ? 'found' : `line? ${where} (${r.lines.map((l) => l.join(':')).join(' or ')})`} ${r.kind}${r.at < 0 ? '' : ` (rank ${r.at + 1})`}`,
    );
  }
  if (rows.some((r) => r.at === 0)) total.first++;
  for (const f of others)
    console.log(`  other: ${f.kind}: ${f.what} → ${f.remedy.words} (${f.effect.cost.toFixed(1)} ms)`);
  for (const e of effects) {
    const same = Math.abs(e.done - e.promised) <= Math.max(3, Math.abs(e.promised) * 0.05);
    total.promised++;
    if (same) total.kept++;
    else
      console.log(
        `  effect of ${e.id}: promised ${e.promised.toFixed(1)}, patched ${e.done.toFixed(1)} ms ${e.error ?? ''}`,
      );
  }
  total.advised += findings.length;
  total.wrong += others.length;
}
console.table(Object.fromEntries(kinds));
const percent = (part, whole) => `${part} of ${whole} (${((part / Math.max(1, whole)) * 100).toFixed(0)} %)`;
console.log(`found ${percent(total.found, total.planted)}, at the right line ${percent(total.right, total.found)}`);
console.log(
  `advised for a reason ${percent(total.advised - total.wrong, total.advised)}, one of them first in ${percent(total.first, count)}`,
);
console.log(`after the patch as promised ${percent(total.kept, total.promised)}`);
