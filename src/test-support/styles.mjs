import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** Files that packages of frameworks have, by the names under which compilers ask for them. */
const ENTRIES = [
  ...['index', 'client', 'jsx-runtime', 'dynamic', 'document', 'hooks', 'reactivity', 'store', 'decorators', 'web'],
  ...['directives/until', 'directives/when'],
  ...['internal/client', 'internal/disclose-version', 'internal/flags/legacy'],
];

const FOLDER = path.resolve('examples/styles');

/** The samples of styles: small apps as frameworks have them written. */
export function styleNames() {
  return fs
    .readdirSync(FOLDER, { withFileTypes: true })
    .filter((e) => e.isDirectory())
    .map((e) => e.name);
}

/**
 * A copy of a sample with a stand-in for each of its packages, so that names of packages lead somewhere; and what it says of itself.
 * A package that the sample brings itself, below `packages`, is put in its place.
 */
export function styleSample(name) {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), `yokeline-${name}-`));
  fs.cpSync(path.join(FOLDER, name), folder, { recursive: true });
  const described = JSON.parse(fs.readFileSync(path.join(folder, 'package.json'), 'utf8'));
  for (const dependency of Object.keys(described.dependencies ?? {})) {
    const own = path.join(folder, 'node_modules', dependency);
    fs.mkdirSync(own, { recursive: true });
    fs.writeFileSync(path.join(own, 'package.json'), JSON.stringify({ name: dependency, version: '1.0.0' }));
    for (const entry of ENTRIES) {
      const file = path.join(own, `${entry}.js`);
      fs.mkdirSync(path.dirname(file), { recursive: true });
      fs.writeFileSync(file, 'export default {};\n');
    }
  }
  const expected = JSON.parse(fs.readFileSync(path.join(folder, 'expected.json'), 'utf8'));
  fs.rmSync(path.join(folder, 'expected.json'));
  return { folder, expected };
}

/** A part as samples write it: its module, place, what draws it, and where that is written. */
export function partInWords({ module, place, action, condition, evidence }) {
  const by = action ?? condition?.kind;
  return `${module} ${place}${by === undefined ? '' : ` (${by})`} ${evidence?.path}:${evidence?.line}`;
}
