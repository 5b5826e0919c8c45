// Reading sources, and how close estimates and proposals are.
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeLargeApp } from '../../examples/large-app.mjs';
import { partsReport } from '../parts-report.mjs';
import { line, measure, median, report, share } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { planned } = await core('chunks/planned.js');
const { BASELINE } = await core('plan/types.js');
const { importKey } = await core('snapshot/graph-index.js');
const { readSource } = await import('../../dist/reader/read-source.js');
const { runReading } = await import('../../dist/reader/process/run-reading.js');
const { exactSizes } = await import('../../dist/reader/weigh.js');
const { rememberWith } = await import('../../dist/reader/memory/memory.js');
const { FilesMemory } = await import('../../dist/reader/memory/files-memory.js');
const { ReadingsMemory } = await import('../../dist/reader/memory/readings-memory.js');

export async function reading(sample) {
  report(
    'sample: read from source',
    measure(() => readSource(sample), 5, 1),
    2000,
  );
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-large-'));
  writeLargeApp(folder, 10_000);
  // As the product reads: in a process of its own, which has threads on the other cores.
  const began = performance.now();
  const work = { folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] };
  const script = fileURLToPath(new URL('../../dist/reader/process/reading-process.js', import.meta.url));
  const modules = (await runReading(work, script).done).snapshot.modules.length;
  const ms = performance.now() - began;
  report(`generated source tree of ${modules.toLocaleString('en')} modules: read`, ms, 12_000);
  fs.rmSync(folder, { recursive: true, force: true });
  readAgain();
  const megabytes = process.resourceUsage().maxRSS / 1024;
  const words = `${megabytes.toFixed(0).padStart(9)} MB`;
  line('largest memory of this process so far', words, 'aim ≤ 1500 MB', megabytes <= 1500);
}

/** How long it takes from a save to the new snapshot, in a process that stays and remembers, as the one that follows a folder does. */
function readAgain() {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-followed-'));
  writeLargeApp(folder, 5000);
  const known = new ReadingsMemory(null, new FilesMemory());
  rememberWith(known);
  const readOnce = () => {
    const { snapshot } = readSource(folder);
    known.settle();
    return snapshot.modules;
  };
  const modules = readOnce();
  const own = modules.filter((m) => m.package === null && m.kind === 'script');
  let edits = 0;
  const ms = measure(
    () => {
      const { path: file } = own[(edits * 997) % own.length];
      fs.appendFileSync(path.join(folder, file), `\nglobalThis.edit${edits++} = ${edits};\n`);
      readOnce();
    },
    5,
    2,
  );
  report(`generated app of ${modules.length.toLocaleString('en')} modules: read again after an edit`, ms, 400);
  rememberWith(null);
  fs.rmSync(folder, { recursive: true, force: true });
}

export function estimates({ snapshot, texts }) {
  const wide = {
    name: 'wide',
    description: '',
    decisions: snapshot.imports.flatMap((i, at) =>
      i.kind === 'static' && at % 3 === 0 ? [{ kind: 'detach', import: importKey(snapshot, i) }] : [],
    ),
  };
  sizeErrors(snapshot, texts, 'as built', BASELINE);
  sizeErrors(snapshot, texts, 'a third of the imports detached', wide);
  for (const example of ['saltmarsh-ferries', 'hollow-lane-library']) {
    const { right, found, noted } = partsReport(example);
    const words = `precision ${right} of ${found}, recall ${right} of ${noted}`;
    line(`${example}: parts proposed from code`, words, null, true);
  }
}

/** How far the live estimate of chunk sizes is from really compressing them. */
function sizeErrors(snapshot, texts, said, plan) {
  const errors = planned(snapshot, plan).graph.chunks.map((chunk) => {
    const exact = exactSizes(chunk.modules.map((m) => texts[snapshot.modules[m].path])).gzip;
    return { bytes: chunk.bytes.minified, off: Math.abs(chunk.bytes.gzip - chunk.overhead.gzip - exact) / exact };
  });
  const large = errors.filter((e) => e.bytes > 20_000).map((e) => e.off);
  share(`sample, ${said}: size estimate, median of ${errors.length} chunks`, median(errors.map((e) => e.off)), 0.03);
  share(`sample, ${said}: size estimate, worst of ${large.length} chunks over 20 kB`, Math.max(...large), 0.08);
}
