// Rehearses plans of several apps under several conditions and says how far predictions are off, before and after what was measured on the
// baseline was taken, and whether gains came about. Wants a quiet machine. Build first: npm run build:node.
// Usage: node script/rehearse-bench.mjs [--runs N] [--only APP] [--app FOLDER --workspace FOLDER] [--routes N]
import fs from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { advise } from '../dist/core/advise/advise.js';
import { NO_AMENDMENTS } from '../dist/core/amend/types.js';
import { withMeasured } from '../dist/core/amend/with-measured.js';
import { rangeOf } from '../dist/core/metrics/range.js';
import { planWith } from '../dist/core/plan/decisions.js';
import { BASELINE } from '../dist/core/plan/types.js';
import { predict } from '../dist/core/predict/predict.js';
import { layUnder } from '../dist/core/recordings/match.js';
import { asRehearsed } from '../dist/core/rehearsals/as-rehearsed.js';
import { conditionsAsRun } from '../dist/core/rehearsals/conditions-as-run.js';
import { learnt } from '../dist/core/rehearsals/learn.js';
import { middleRun } from '../dist/core/rehearsals/middle-run.js';
import { gainsOf, quantitiesBeside } from '../dist/core/rehearsals/quantities.js';
import { DEFAULT_CONDITIONS, DEVICES, LINKS } from '../dist/core/sim/conditions.js';
import { finish } from '../dist/core/steps.js';
import { modelOf } from '../dist/core/visitors/model.js';
import { readSource } from '../dist/reader/read-source.js';
import { rehearse } from '../dist/rehearse/rehearse.js';
import { writeFiles } from './made-apps.mjs';
import { DESK, DESK_FOLDER } from './rehearsing/desk-app.mjs';
import { LOG, LOG_FOLDER } from './rehearsing/log-app.mjs';

const { values } = parseArgs({
  options: {
    runs: { type: 'string', default: '3' },
    routes: { type: 'string', default: '2' },
    only: { type: 'string' },
    app: { type: 'string', multiple: true },
    workspace: { type: 'string' },
  },
});
const link = (id) => LINKS.find((l) => l.id === id);
const device = (id) => DEVICES.find((d) => d.id === id);
const CONDITIONS = [
  { name: 'fast link', link: link('clear-cell'), device: device('laptop') },
  { name: 'slow link', link: link('crowded-cell'), device: device('laptop') },
  { name: 'slow thread', link: link('clear-cell'), device: device('everyday-phone') },
].map((c) => ({ name: c.name, conditions: { link: c.link, device: c.device, cache: 'empty' } }));

function apps() {
  if (values.app)
    return values.app.map((folder) => ({ name: path.basename(folder), folder, workspace: values.workspace }));
  writeFiles(DESK_FOLDER, DESK);
  writeFiles(LOG_FOLDER, LOG);
  return [
    { name: 'ferries', folder: path.resolve('examples/saltmarsh-ferries') },
    { name: 'log', folder: LOG_FOLDER, workspace: path.resolve('.') },
    { name: 'desk', folder: DESK_FOLDER, workspace: path.resolve('.') },
  ].filter((a) => a.name.includes(values.only ?? ''));
}

/** The baseline, what is advised, and two other ways to put modules into files. */
function plansOf(snapshot) {
  const { findings } = finish(advise(snapshot, BASELINE, modelOf(snapshot).model, DEFAULT_CONDITIONS));
  const advised = findings
    .filter((f) => f.basis.on === 'the plan')
    .reduce((plan, f) => planWith(plan, f.remedy), BASELINE);
  const packages = [...new Set(snapshot.modules.flatMap((m) => m.package ?? []))].slice(0, 1);
  return [
    BASELINE,
    { ...advised, name: 'advised' },
    { name: 'small files joined', description: '', decisions: [{ kind: 'floor', bytes: 60_000 }] },
    {
      name: 'packages by themselves',
      description: '',
      decisions: packages.map((p) => ({ kind: 'apart', match: { package: p } })),
    },
  ];
}

let broken = 0;
const off = { before: {}, after: {} };
/** How often what was measured lies between the least and the most that is believable: hits, all. */
const within = {
  before: { firstContent: [0, 0], interactive: [0, 0] },
  after: { firstContent: [0, 0], interactive: [0, 0] },
};
const gains = { before: [], after: [] };
const note = (when, what, value) => {
  off[when][what] ??= [];
  if (value !== null && Number.isFinite(value)) off[when][what].push(value);
};

function lay(snapshot, plan, rehearsal, when) {
  const as = asRehearsed(plan, rehearsal);
  const conditions = conditionsAsRun(rehearsal);
  const { reading, timeline, program } = predict(snapshot, as, rehearsal.pattern, conditions);
  const range = rangeOf(program, conditions);
  const beside = quantitiesBeside({ milestones: reading.milestones, timeline }, rehearsal);
  for (const b of beside) {
    note(when, b.quantity, b.off);
    const count = within[when][b.quantity];
    if (!range || !count || !b.rehearsed) continue;
    const { least, most } = b.rehearsed;
    count[0] += most >= range.low[b.quantity] && least <= range.high[b.quantity] ? 1 : 0;
    count[1]++;
  }
  const run = middleRun(rehearsal);
  const laid = layUnder(timeline, { title: '', requests: run.requests, contentLoaded: null, load: null, leftOut: [] });
  for (const [i, r] of timeline.requests.entries())
    if (laid.of[i]) note(when, 'ends of files', r.end / laid.of[i].end - 1);
  return beside;
}

const percent = (share) => `${(share * 100).toFixed(1)} %`;
for (const app of apps()) {
  const reading = app.workspace ? { workspace: app.workspace } : {};
  const { snapshot } = readSource(app.folder, reading);
  const plans = plansOf(snapshot);
  for (const { pattern } of snapshot.routes
    .filter((r) => r.rendering === 'client' && !/[:*]/.test(r.pattern))
    .slice(0, Number(values.routes))) {
    let known = null;
    for (const { name, conditions } of CONDITIONS) {
      const done = [];
      for (const plan of plans) {
        try {
          const work = {
            folder: app.folder,
            reading,
            amendments: NO_AMENDMENTS,
            memory: null,
            plan,
            pattern,
            conditions,
            runs: Number(values.runs),
          };
          const rehearsal = await rehearse(work, () => {});
          const errors = [...new Set(rehearsal.runs.flatMap((r) => r.errors))];
          if (errors.length > 0) {
            broken++;
            console.log(`${app.name} ${pattern}, ${name}, ${plan.name}: the page threw ${errors[0].slice(0, 120)}`);
            continue;
          }
          const before = lay(snapshot, plan, rehearsal, 'before');
          // What the baseline told on the first conditions is taken for all others.
          const after = known ? lay(withMeasured(snapshot, known), plan, rehearsal, 'after') : null;
          known ??= learnt(snapshot, [rehearsal]);
          done.push({ plan, before, after });
          const said = before
            .slice(0, 2)
            .map(
              (b, i) =>
                `${b.name} ${Math.round(b.predicted ?? Number.NaN)}${after ? ` / ${Math.round(after[i].predicted)}` : ''} for ${b.rehearsed ? `${Math.round(b.rehearsed.median)} (${Math.round(b.rehearsed.least)}–${Math.round(b.rehearsed.most)})` : '?'}`,
            );
          console.log(
            `${app.name} ${pattern}, ${name}, ${plan.name}: ${said.join(', ')}${rehearsal.leftOut.length ? ` (${rehearsal.leftOut.length} left out)` : ''}`,
          );
        } catch (error) {
          console.log(`${app.name} ${pattern}, ${name}, ${plan.name}: ${String(error.message).slice(0, 200)}`);
        }
      }
      for (const { plan, before, after } of done.slice(1)) {
        const from = done[0];
        for (const [when, a, b] of [
          ['before', from.before, before],
          ['after', from.after, after],
        ]) {
          const gain = a && b ? gainsOf(a, b).find((g) => g.quantity === 'interactive') : null;
          if (gain?.verdict) gains[when].push({ ...gain, plan: plan.name });
        }
      }
    }
  }
}
for (const folder of [DESK_FOLDER, LOG_FOLDER]) fs.rmSync(folder, { recursive: true, force: true });
if (broken > 0) console.log(`${broken} rehearsals threw errors and don’t count`);
const rank = (list, share) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
for (const when of ['before', 'after']) {
  console.log(when === 'before' ? 'predicted from code alone' : 'predicted with what one landing of the baseline told');
  for (const [what, list] of Object.entries(off[when])) {
    const size = list.map(Math.abs);
    console.log(
      `  ${what}: off by ${percent(rank(size, 0.5))} (median), ${percent(rank(size, 0.9))} (90th percentile), lean ${percent(rank(list, 0.5))}, of ${list.length}`,
    );
  }
  for (const [what, [hits, all]] of Object.entries(within[when]))
    if (all > 0) console.log(`  ${what}: within the range of what is believable in ${hits} of ${all}`);
  const telling = gains[when].filter((g) => Math.abs(g.rehearsed) > g.give);
  const right = telling.filter((g) => Math.sign(g.predicted) === Math.sign(g.rehearsed));
  const near = telling.map((g) => Math.abs(g.predicted / g.rehearsed - 1));
  if (telling.length > 0)
    console.log(
      `  gains beyond the spread: ${telling.length} of ${gains[when].length}, right sign ${right.length}, off by ${percent(rank(near, 0.5))} (median)`,
    );
}
