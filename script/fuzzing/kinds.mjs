// What is fed with what. Each kind draws an input for a seed and runs it; it may fail only with an error that is meant for people
// (InputError, Unreadable). What reads a folder says which, so that it can be tried again as users do: in a process of its own.
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import Papa from 'papaparse';
import tar from 'tar-stream';
import * as corpus from './corpus.mjs';
import { drawn, mutatedBytes, mutatedJson, mutatedText } from './mutate.mjs';

const from = (file) => import(new URL(`../../dist/${file}`, import.meta.url));
const { readApp } = await from('reader/read-app.js');
const { parseNotes } = await from('core/formats/app-notes.js');
const { readHtml } = await from('reader/html-document.js');
const { readMap } = await from('reader/output/source-map.js');
const { unpack } = await from('reader/unpack/unpack.js');
const { parseProject, studied } = await from('core/formats/project-file.js');
const { parsePlanFile } = await from('core/formats/plan-file.js');
const { parseJson } = await from('core/text/json.js');
const { readFileMap } = await from('core/formats/file-map.js');
const { NavigationLog } = await from('core/formats/navigation-log.js');
const { LogLearner } = await from('core/visitors/learn.js');
const { readHar } = await from('core/recordings/read-har.js');
const { layUnder } = await from('core/recordings/match.js');
const { AMENDMENTS } = await from('core/amend/types.js');
const { amend } = await from('core/amend/amend.js');
const { predict } = await from('core/predict/predict.js');
const { handoff } = await from('core/handoff/handoff.js');
const { DEFAULT_CONDITIONS } = await from('core/sim/conditions.js');
const { BASELINE } = await from('core/plan/types.js');

const { snapshot } = corpus;
const baseline = predict(snapshot, BASELINE, snapshot.routes[0].pattern, DEFAULT_CONDITIONS);

/** A landing of what was taken in, and all that is handed over of it: whatever is accepted has to work. */
function use(app, plan) {
  for (const { pattern } of app.routes.slice(0, 2)) predict(app, plan, pattern, DEFAULT_CONDITIONS);
  handoff(app, plan, null);
}

function written(files) {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-fuzz-'));
  for (const [name, content] of Object.entries(files)) {
    const file = path.join(folder, name);
    fs.mkdirSync(path.dirname(file), { recursive: true });
    fs.writeFileSync(file, content);
  }
  return folder;
}

/** A folder in which one file is drawn; `use` gets the folder, which goes afterwards. */
function folderKind(app, places, as) {
  const input = fc
    .constantFrom(...Object.keys(places))
    .chain((name) => mutatedText([...places[name], app[name]]).map((text) => ({ ...app, [name]: text })));
  return {
    input,
    as,
    folder: written,
    run(files) {
      const folder = written(files);
      try {
        const { snapshot: read } = readApp(folder, { as });
        if (read.routes.length > 0) use(read, BASELINE);
      } finally {
        fs.rmSync(folder, { recursive: true, force: true });
      }
    },
  };
}

const textKind = (texts, run) => ({ input: mutatedText(texts), run });
const jsonKind = (values, run) => ({ input: mutatedJson(values), run });

async function archives() {
  const files = Object.fromEntries(Object.entries(corpus.sourceApp).map(([n, t]) => [`app/${n}`, Buffer.from(t)]));
  const pack = tar.pack();
  for (const [name, content] of Object.entries(files)) pack.entry({ name }, content);
  pack.entry({ name: 'app/link', type: 'symlink', linkname: '../../x' });
  pack.finalize();
  const pieces = [];
  for await (const piece of pack) pieces.push(piece);
  const bare = Buffer.concat(pieces);
  return { zip: Buffer.from(zipSync(files)), tar: bare, 'tar.gz': gzipSync(bare) };
}
const packed = await archives();

export const KINDS = {
  sources: folderKind(
    corpus.sourceApp,
    {
      ...Object.fromEntries(['src/main.tsx', 'src/later.ts', 'src/shared.ts'].map((name) => [name, corpus.scripts])),
      'src/a.css': corpus.styles,
      'index.html': corpus.documents,
      'package.json': [],
      'yokeline.app.json': corpus.notes.map((n) => JSON.stringify(n)),
    },
    'sources',
  ),
  ...Object.fromEntries(
    ['vue-parts', 'svelte-parts', 'angular-blocks', 'islands', 'elements'].map((name) => {
      const app = corpus.templateApp(name);
      const places = Object.keys(app).filter((f) => !/package\.json$/.test(f));
      const texts = (f) => (/\.(scss|sass|less)$/.test(f) ? corpus.sheets : corpus.templates);
      return [name, folderKind(app, Object.fromEntries(places.map((f) => [f, texts(f)])), 'sources')];
    }),
  ),
  output: folderKind(
    corpus.outputApp,
    {
      'index.html': corpus.documents,
      'assets/main-1a2b.js': corpus.scripts,
      'assets/main-1a2b.js.map': [],
      'assets/main.css': corpus.styles,
      'assets/vendor-3c.js': corpus.scripts,
    },
    'output',
  ),
  archives: {
    input: fc.constantFrom('zip', 'tar', 'tar.gz').chain((end) =>
      end === 'tar.gz'
        ? fc
            .oneof(
              mutatedBytes([packed[end]]),
              mutatedBytes([packed.tar]).map((b) => gzipSync(b)),
            )
            .map((bytes) => ({ end, bytes }))
        : mutatedBytes([packed[end]]).map((bytes) => ({ end, bytes })),
    ),
    async run({ end, bytes }) {
      const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-fuzz-'));
      try {
        fs.writeFileSync(path.join(folder, 'body'), bytes);
        await unpack(path.join(folder, 'body'), `a.${end}`, path.join(folder, 'into'));
        if (fs.readdirSync(folder).some((name) => name !== 'body' && name !== 'into'))
          throw new Error('it left its folder');
      } finally {
        fs.rmSync(folder, { recursive: true, force: true });
      }
    },
  },
  projects: jsonKind(corpus.projects, (text) => {
    const project = parseProject(text, 'a.json');
    use(studied(project), project.plans[0] ?? BASELINE);
  }),
  plans: jsonKind(corpus.plans, (text) => use(snapshot, parsePlanFile(text, 'plan.json').plan)),
  amendments: jsonKind(corpus.amendments, (text) =>
    use(amend(snapshot, AMENDMENTS.check(parseJson(text, 'a.json'), 'amendments')).snapshot, BASELINE),
  ),
  recordings: jsonKind(corpus.recordings, (text) =>
    layUnder(baseline.timeline, readHar(parseJson(text, 'a.har'), 'a.har')),
  ),
  logs: textKind(corpus.logs, (text) => {
    const learner = new LogLearner(snapshot.routes);
    const csv = (piece) => Papa.parse(piece, { skipEmptyLines: false }).data;
    const log = new NavigationLog(
      'a.csv',
      csv,
      (record, line) => learner.add(record, line),
      () => {},
    );
    for (let at = 0; at < text.length; at += 997) log.push(text.slice(at, at + 997));
    log.end();
  }),
  'source maps': jsonKind([JSON.parse(corpus.outputApp['assets/main-1a2b.js.map'])], (text) =>
    readMap(text, 'a.js.map'),
  ),
  notes: jsonKind(corpus.notes, (text) => parseNotes(text)),
  styles: folderKind(corpus.sourceApp, { 'src/a.css': corpus.styles }, 'sources'),
  documents: textKind(corpus.documents, (text) => readHtml(text)),
  'file maps': jsonKind(corpus.fileMaps, (text) => readFileMap(text, 'map.json')),
};

/** Errors that are meant for people. */
const MEANT = new Set(['InputError', 'Unreadable']);

/** Runs one case; null when all is well, otherwise what failed. */
export async function tryCase(kind, seed, begins = () => {}) {
  const { input, run } = KINDS[kind];
  const value = drawn(input, seed);
  begins();
  try {
    await run(value);
    return null;
  } catch (error) {
    const name = error?.constructor?.name ?? typeof error;
    return MEANT.has(name) ? null : `${name}: ${String(error?.stack ?? error).slice(0, 900)}`;
  }
}
