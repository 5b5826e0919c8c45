// Writes the sample's navigation log: visits drawn from what its notes say of visitors, always the same ones.
// Usage: node examples/draw-log.mjs PROJECT_FILE COUNT > examples/saltmarsh-ferries.visits.csv
import fs from 'node:fs';
import { planned } from '../dist/core/chunks/planned.js';
import { parseProject, studied } from '../dist/core/formats/project-file.js';
import { BASELINE } from '../dist/core/plan/types.js';
import { drawVisit } from '../dist/core/visitors/draw.js';
import { modelOf } from '../dist/core/visitors/model.js';
import { VisitCompiler } from '../dist/core/visits/program.js';

const [file, count = '600'] = process.argv.slice(2);
const snapshot = studied(parseProject(fs.readFileSync(file, 'utf8'), file));
const { model } = modelOf(snapshot);
const ways = new VisitCompiler(planned(snapshot, BASELINE));
const begin = Date.UTC(2026, 4, 4, 6);
const lines = [];
for (let n = 0; n < Number(count); n++) {
  const { visit } = drawVisit(model, ways, 4, n);
  let time = begin + n * 41_000;
  const tell = (route, action) =>
    lines.push({ time, line: `s${n},${new Date(time).toISOString()},${route},${action}` });
  const address = (pattern) => pattern.replace(':id', String(100 + (n % 37)));
  tell(address(visit.landing), '');
  for (const step of visit.steps) {
    time += Math.round(step.dwellMs);
    if (step.does === 'move') tell(address(step.to), '');
    else tell('', step.part);
  }
}
lines.sort((a, b) => a.time - b.time);
console.log(['visit,time,route,action', ...lines.map((l) => l.line)].join('\n'));
