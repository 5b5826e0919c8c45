// Writes what the command line says about the samples into a folder, one JSON file per question, so that two states of the
// code can be laid beside each other: `node script/readouts.mjs BEFORE`, change, `node script/readouts.mjs AFTER`, then
// `diff -r BEFORE AFTER`. A move of code changes nothing there. `--brief` leaves out what takes long.
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');
const [folder] = process.argv.slice(2).filter((a) => !a.startsWith('--'));
const brief = process.argv.includes('--brief');
if (!folder) {
  process.stderr.write('Name the folder to write to: node script/readouts.mjs FOLDER\n');
  process.exit(2);
}
const { run } = await import(new URL('../dist/cli/main.js', import.meta.url).href);
fs.mkdirSync(folder, { recursive: true });

/** What one command line prints, as text. */
async function printed(args) {
  const write = process.stdout.write;
  let text = '';
  process.stdout.write = (piece) => {
    text += piece;
    return true;
  };
  try {
    await run(['node', 'yokeline', ...args, '--json']);
  } finally {
    process.stdout.write = write;
  }
  process.exitCode = 0;
  // The answer names files that it wrote, and how long reading took: neither is a part of what is compared.
  return text.replaceAll(folder, '').replace(/^ "ms": \d+$/m, ' "ms": 0');
}

/** Decisions of many kinds for a sample; taken from its own notes' modules, so that all stages have something to do. */
const PLANS = {
  'saltmarsh-ferries': [
    ['--detach', 'src/timetable/departure-board.tsx::../tickets/ticket-dialog'],
    ['--join', 'src/app/routes.tsx::../help/help-page'],
    ['--hint', 'modulepreload:src/timetable/weather-strip.tsx@header'],
    ['--hint', 'modulepreload:src/tickets/ticket-dialog.tsx@early', '--hint', 'prepare document:/book@approach'],
    ['--hint', 'preload:src/tickets/ticket-dialog.tsx@idle', '--hint', 'preconnect:https://tiles.example@markup'],
    ['--fetch', 'src/timetable/weather-strip.tsx@visible'],
    ['--floor', '8000'],
    ['--ceiling', '12'],
  ],
  'hollow-lane-library': [['--floor', '8000'], ['--grain']],
};
const EXPORTS = [
  'plan',
  'markup',
  'headers',
  'early-hints',
  'speculation-rules',
  'hint-script',
  'triggers',
  'manifest',
];
const LONG = ['csv', 'report', 'patch', 'deploy'];

for (const [name, decisions] of Object.entries(PLANS)) {
  const own = path.join(folder, name);
  fs.mkdirSync(own, { recursive: true });
  const keep = async (file, ...args) => fs.writeFileSync(path.join(own, file), await printed(args));
  const project = path.join(own, 'project.json');
  await keep('read.json', 'read', path.join(root, 'examples', name), '--out', project);
  await keep('plan.json', 'plan', project, '--name', 'Tried', ...decisions.flat());
  const routes = JSON.parse(fs.readFileSync(path.join(own, 'read.json'), 'utf8')).routes.map((r) => r.pattern ?? r);
  for (const plan of [[], ['--plan', 'Tried']]) {
    const of = plan.length === 0 ? 'baseline' : 'tried';
    await keep(`graph.${of}.json`, 'graph', project, ...plan);
    await keep(`chunks.${of}.json`, 'chunks', project, ...plan);
    await keep(`visit.${of}.json`, 'visit', project, '--visit', `${routes[0]} > move ${routes[1]} @3000+200`, ...plan);
    for (const [i, route] of routes.entries()) {
      await keep(`carried.${i}.${of}.json`, 'carried', project, '--route', route, ...plan);
      for (const circumstances of [[], ['--link', 'home-cable', '--device', 'laptop', '--cache', 'returning']])
        await keep(
          `simulate.${i}.${circumstances.length === 0 ? 'first' : 'again'}.${of}.json`,
          ...['simulate', project, '--route', route, ...circumstances, ...plan],
        );
    }
    if (!brief) {
      await keep(`visitors.${of}.json`, 'visitors', project, ...plan);
      await keep(`advise.${of}.json`, 'advise', project, ...plan);
    }
  }
  for (const kind of brief ? EXPORTS : [...EXPORTS, ...LONG]) {
    const out = path.join(own, `export.${kind}`);
    await keep(`export.${kind}.json`, 'export', project, '--kind', kind, '--plan', 'Tried', '--out', out);
  }
  await keep('limits.json', 'limits', project, '--set-from', 'Tried');
  await keep('check.json', 'check', path.join(root, 'examples', name), '--project', project);
  if (!brief) await keep('choose.json', 'choose', project, '--about', 'both', '--changes', '4');
}
