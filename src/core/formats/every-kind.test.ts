import { EVERY_KIND } from '../../test-support/every-kind.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { MODULE_KINDS } from '../snapshot/module-types.ts';
import { type Snapshot } from '../snapshot/types.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, parseProject, writeProject } from './project-file.ts';

it('opens a project with every kind of everything as it was written, and simulates it', () => {
  expect(new Set(EVERY_KIND.modules.map((m) => m.kind))).toEqual(new Set(MODULE_KINDS));
  const project = {
    ...{ format: PROJECT_FORMAT, version: PROJECT_VERSION, snapshot: EVERY_KIND, plans: [], amendments: NO_AMENDMENTS },
  } as Parameters<typeof writeProject>[0];
  const { snapshot } = parseProject(writeProject(project), 'every.yokeline.json');
  expect(JSON.parse(JSON.stringify(snapshot))).toEqual(JSON.parse(JSON.stringify(EVERY_KIND)));
  const { reading } = predict(snapshot, BASELINE, '/', DEFAULT_CONDITIONS);
  expect(reading.readout.startBytes).toBeGreaterThan(0);
  expect(reading.unknown.length).toBeGreaterThan(3);
});

it.each([
  ['a size of over 2 GB', (s: Snapshot) => (s.modules[0].bytes.gzip = 2e9 + 1), 'snapshot.modules[0].bytes.gzip'],
  [
    'a time of over a day',
    (s: Snapshot) => (s.routes[0].document.serverMs = 9e7),
    'snapshot.routes[0].document.serverMs',
  ],
  ['a script of over 2 GB', (s: Snapshot) => (s.scripts[0].bytes = 3e9), 'snapshot.scripts[0].bytes'],
  [
    'a text without end',
    (s: Snapshot) => (s.routes[0].parts[0].name = 'x'.repeat(100_001)),
    'snapshot.routes[0].parts[0].name',
  ],
])('refuses %s by its field', (_, spoil, at) => {
  const snapshot = structuredClone(EVERY_KIND);
  spoil(snapshot);
  const file = JSON.stringify({ format: PROJECT_FORMAT, version: PROJECT_VERSION, snapshot, plans: [] });
  expect(() => parseProject(file, 'p.json')).toThrow(expect.objectContaining({ at: expect.stringContaining(at) }));
});
