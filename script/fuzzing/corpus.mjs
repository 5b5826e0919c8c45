// Small real files of each kind, from which mutations begin: the samples, packages that are installed, and files made by the
// program itself.
import fs from 'node:fs';
import path from 'node:path';
import MagicString, { Bundle } from 'magic-string';
import { largeApp } from '../../examples/large-app.mjs';

const from = (file) => import(new URL(`../../dist/${file}`, import.meta.url));
const { readSource } = await from('reader/read-source.js');
const { writeProject, PROJECT_FORMAT, PROJECT_VERSION } = await from('core/formats/project-file.js');
const { writePlanFile } = await from('core/formats/plan-file.js');
const { writeHar } = await from('core/formats/har.js');
const { NO_AMENDMENTS } = await from('core/amend/types.js');
const { importKey } = await from('core/snapshot/graph-index.js');
const { predict } = await from('core/predict/predict.js');
const { DEFAULT_CONDITIONS } = await from('core/sim/conditions.js');
const { BASELINE } = await from('core/plan/types.js');
const { VERSION } = await from('core/version.js');

const MOST_BYTES = 12_000;

/** Files below a folder that end so, small ones only, by their path in it. */
function filesOf(folder, ends, most = 80) {
  if (!fs.existsSync(folder)) return {};
  const found = {};
  for (const entry of fs.readdirSync(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !ends.test(entry.name)) continue;
    const full = path.join(entry.parentPath, entry.name);
    if (fs.statSync(full).size > MOST_BYTES) continue;
    found[path.relative(folder, full)] = fs.readFileSync(full, 'utf8');
    if (Object.keys(found).length >= most) break;
  }
  return found;
}

const SCRIPTS = /\.[cm]?[jt]sx?$/;
const PACKAGES = ['react', 'scheduler', 'zustand', 'comlink', 'cmdk', 'sonner', 'd3-scale', 'papaparse'];
const samples = ['saltmarsh-ferries', 'hollow-lane-library'].map((name) => filesOf(`examples/${name}`, /.*/, 200));

export const scripts = [
  ...samples.flatMap((files) => Object.entries(files).flatMap(([name, text]) => (SCRIPTS.test(name) ? [text] : []))),
  ...PACKAGES.flatMap((name) => Object.values(filesOf(`node_modules/${name}`, SCRIPTS, 12))),
];
export const styles = [
  ...samples.flatMap((files) => Object.entries(files).flatMap(([name, text]) => (/\.s?css$/.test(name) ? [text] : []))),
  fs.readFileSync('src/app/globals.css', 'utf8'),
  '@media (min-width: 1px) { .a:not(.b) > c::before { content: "\\201c"; width: calc(1px + (2px * 3)) } }',
];
export const documents = [
  ...samples.flatMap((files) => Object.entries(files).flatMap(([name, text]) => (/\.html$/.test(name) ? [text] : []))),
  '<!doctype html><link rel=preload as=image href=/a.png imagesrcset="a 1x, b 2x"><script type=module src="./a.js" async></script><picture><source srcset="a.png 1x"><img src=b.png loading=lazy></picture><template><script src=c.js></script></template>',
];

/** A small app of sources, as files by their path. */
export const sourceApp = {
  'package.json': '{"name":"fuzzed","type":"module"}',
  'index.html':
    '<!doctype html><link rel="stylesheet" href="/src/a.css"><div id="root"></div><script type="module" src="/src/main.tsx"></script>',
  'src/main.tsx':
    "import { App } from './app';\nimport './a.css';\nconst later = () => import('./later');\nexport { App, later };\n",
  'src/later.ts': "export * from './shared';\nexport const wait = await Promise.resolve(1);\n",
  'src/shared.ts': 'export const one = 1;\nexport default class Shared {}\n',
  'src/a.css': '.a { color: red }\n@media print { .b { color: blue } }\n',
  'yokeline.app.json': '{"routes":{"/":{"parts":[]}}}',
};

/** Small apps whose components are written in templates, by the samples of styles. */
export const templateApp = (name) => filesOf(`examples/styles/${name}`, /^(?!.*expected\.json$)/, 60);
export const templates = [
  '<script setup lang="ts">\nimport A from "./a.vue"\nconst o = ref(false)\n</script>\n<template><a v-if="o" @click="o = !o">{{ o }}</a><A v-else :is="t[o]" /></template>\n<style scoped lang="scss">$a: 1px; .b { &:c { d: $a } }</style>',
  '<script>\n  let o = $state(false);\n</script>\n{#if o}<b onclick={() => (o = !o)}>x</b>{:else}{#await import("./a.svelte") then { default: A }}<A bind:o />{/await}{/if}\n<style>b { c: d }</style>',
  '---\nimport A from "./a.jsx";\n---\n<A client:visible b={c > 1 ? "x" : `y`} /><script>import "./b";</script>',
  '@Component({ selector: \'a-b\', template: `@if (o()) { <c-d (e)="o.set(f | g)" /> } @defer (on viewport) { <h-i /> } @placeholder { x }` }) export class A {}',
];
export const sheets = [
  '@use "a" as b;\n$c: 1px;\n@mixin d($e) { f: $e }\n.g { @include d($c); &:h { i: j } @each $k in l, m { n: $k } }',
  '@a: 1px;\n.b() { c: @a }\n.d { .b(); &:e { f: darken(red, 10%) } }\n@plugin "g";',
];

/** The same as a build with source maps would leave it. */
export const outputApp = (() => {
  const bundle = new Bundle();
  for (const name of ['src/shared.ts', 'src/later.ts'])
    bundle.addSource({
      filename: `../${name}`,
      content: new MagicString(sourceApp[name].replaceAll('import(', 'load(')),
    });
  const map = bundle.generateMap({ file: 'main-1a2b.js', includeContent: true, hires: true }).toString();
  return {
    'index.html':
      '<!doctype html><link rel="modulepreload" href="/assets/vendor-3c.js"><script type="module" src="/assets/main-1a2b.js"></script>',
    'assets/main-1a2b.js': `import"./vendor-3c.js";${bundle.toString()}\nimport("./later-2.js");\n//# sourceMappingURL=main-1a2b.js.map\n`,
    'assets/main-1a2b.js.map': map,
    'assets/vendor-3c.js': 'export const x=1;',
    'assets/later-2.js': 'export default 2;',
    'assets/main.css': sourceApp['src/a.css'],
  };
})();

const read = readSource(path.resolve('examples/hollow-lane-library'));
export const snapshot = read.snapshot;
const keys = snapshot.imports.slice(0, 4).map((i) => importKey(snapshot, i));
const targets = snapshot.imports.slice(0, 4).map((i) => snapshot.modules[i.to].path);
const routes = snapshot.routes.map((r) => r.pattern);

/** Decisions of every kind that can be made on it. */
export const plan = {
  name: 'Fuzzed',
  description: 'of every kind',
  decisions: [
    { kind: 'detach', import: keys[0] },
    { kind: 'join', import: keys[1] },
    { kind: 'trigger', splitPoint: targets[0], fetch: { on: 'after', ms: 300 } },
    { kind: 'trigger', splitPoint: targets[1], fetch: { on: 'visible' } },
    {
      kind: 'hint',
      hint: { kind: 'preload', target: { kind: 'split point', module: targets[0] }, place: 'markup', routes },
    },
    {
      kind: 'hint',
      hint: {
        ...{
          kind: 'prefetch',
          target: { kind: 'split point', module: targets[1] },
          place: 'script',
          routes: [routes[0]],
        },
        ...{ on: { on: 'approach' }, notForDataSaver: true, media: { minWidth: 600 } },
      },
    },
    { kind: 'move', module: targets[2], before: targets[0] },
    { kind: 'trim', module: targets[1] },
  ],
};

const projectOf = (app) =>
  writeProject({
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    snapshot: app,
    plans: [],
    amendments: { ...NO_AMENDMENTS, keep: ['a*'] },
  });
export const projects = [projectOf(snapshot), projectOf(largeApp(60))].map((text) => JSON.parse(text));
export const plans = [JSON.parse(writePlanFile(snapshot, { ...plan, decisions: plan.decisions.slice(0, 6) }))];
export const amendments = [{ ...NO_AMENDMENTS, keep: ['tone-*'], confirmed: true }];
const { timeline, reading } = predict(snapshot, BASELINE, routes[0], DEFAULT_CONDITIONS);
export const recordings = [
  writeHar(timeline, reading, {
    ...{ title: 'fuzzed', origin: 'https://app.example', version: VERSION },
    ...{ startedAt: '2026-01-01T00:00:00Z', httpVersion: 'h2' },
  }),
];
export const notes = [
  ...samples.flatMap((files) =>
    Object.entries(files).flatMap(([name, text]) => (name === 'yokeline.app.json' ? [JSON.parse(text)] : [])),
  ),
];
export const logs = [
  fs.readFileSync('examples/saltmarsh-ferries.visits.csv', 'utf8').slice(0, 4000),
  '{"visit":"a","time":1,"route":"/","action":""}\n{"visit":"a","time":"2026-05-04T06:00:00Z","route":"/x"}\n',
];
export const fileMaps = [{ 'src/a.ts': 'assets/a-1.js', 'src/b.ts': '/assets/b-2.js' }];
