// The figures that the project holds itself to, each beside its aim; a file for each subject in `benching/`.
// `--no-browser` leaves out what needs one.
import os from 'node:os';
import path from 'node:path';
import { largeProject, toggle } from './benching/browser.mjs';
import { choosing } from './benching/choosing.mjs';
import { chunksOfGenerated } from './benching/chunks.mjs';
import { handingOver } from './benching/handing-over.mjs';
import { estimates, reading } from './benching/reading.mjs';
import { missedAims } from './benching/report.mjs';
import { landings, pages } from './benching/simulation.mjs';
import { visitsAndAdvice } from './benching/visits.mjs';

const { readSource } = await import('../dist/reader/read-source.js');

console.log(`node ${process.version}, ${os.cpus().length} × ${os.cpus()[0].model.trim()}\n`);
const sample = path.resolve('examples/saltmarsh-ferries');
chunksOfGenerated();
pages();
const read = readSource(sample);
visitsAndAdvice(read.snapshot);
choosing();
handingOver(sample, read);
landings(read.snapshot);
await reading(sample);
estimates(read);
if (!process.argv.includes('--no-browser')) {
  await toggle();
  for (const count of [10_000, 50_000]) await largeProject(count);
}
process.exitCode = missedAims() > 0 ? 1 : 0;
