import { part, route, sketch } from '../../test-support/snapshots.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import {
  DEFERRED_CONTEXTS,
  MODULE_KINDS,
  NOTICE_KINDS,
  PART_PLACES,
  type PartCondition,
  SCRIPT_PLACEMENTS,
  type Snapshot,
} from '../snapshot/types.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, parseProject, writeProject } from './project-file.ts';

const CONDITIONS: Record<PartCondition['kind'], PartCondition> = {
  media: { kind: 'media', maxWidth: 600 },
  answer: { kind: 'answer', of: 'd' },
  segment: { kind: 'segment', segment: 'crew' },
  'one of': { kind: 'one of', group: 'g' },
};

/** A snapshot with every kind of everything that a reading can find. */
const every: Snapshot = {
  ...sketch(
    {
      main: { imports: ['page', 'style', 'json', 'asset'] },
      page: { imports: ['~part'] },
      part: {},
      style: { kind: 'style' },
      json: { kind: 'json' },
      asset: { kind: 'asset' },
    },
    {
      routes: [
        route('/', 'page', {
          data: [{ id: 'd', address: '/d', bytes: 1, serverMs: 2, module: 'page' }],
          parts: [
            ...PART_PLACES.filter((p) => p !== 'conditional').map((place) => part(place, 'part', { place })),
            ...Object.values(CONDITIONS).map((condition) =>
              part(condition.kind, 'part', { place: 'conditional', condition }),
            ),
          ],
        }),
      ],
      notices: NOTICE_KINDS.map((kind) => ({ kind, path: 'main', message: 'so it is' })),
      scripts: SCRIPT_PLACEMENTS.flatMap((placement, at) =>
        [at, null].map((bytes) => ({
          ...{ id: `${placement} ${bytes}`, name: placement, address: `/${at}-${bytes}.js`, bytes },
          ...{ serverMs: 1, evaluationMs: 1, placement, evidence: null },
        })),
      ),
    },
  ),
};
every.imports = every.imports.flatMap((item) =>
  item.kind === 'dynamic' ? DEFERRED_CONTEXTS.map((context, ordinal) => ({ ...item, context, ordinal })) : [item],
);

it('opens a project with every kind of everything as it was written, and simulates it', () => {
  expect(new Set(every.modules.map((m) => m.kind))).toEqual(new Set(MODULE_KINDS));
  const project = {
    ...{ format: PROJECT_FORMAT, version: PROJECT_VERSION, snapshot: every, plans: [], amendments: NO_AMENDMENTS },
  } as Parameters<typeof writeProject>[0];
  const { snapshot } = parseProject(writeProject(project), 'every.yokeline.json');
  expect(JSON.parse(JSON.stringify(snapshot))).toEqual(JSON.parse(JSON.stringify(every)));
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
  const snapshot = structuredClone(every);
  spoil(snapshot);
  const file = JSON.stringify({ format: PROJECT_FORMAT, version: PROJECT_VERSION, snapshot, plans: [] });
  expect(() => parseProject(file, 'p.json')).toThrow(expect.objectContaining({ at: expect.stringContaining(at) }));
});
