import fs from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { readSource } from '../../reader/read-source.ts';
import { EVERY_DECISION } from '../../test-support/every-decision.ts';
import { EVERY_KIND } from '../../test-support/every-kind.ts';
import { SAMPLE } from '../../test-support/folders.ts';
import { InputError } from '../errors.ts';
import type { Form } from '../form/form.ts';
import { proposeLimits } from '../limits/limits.ts';
import { DECISION_LIST } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorNotes } from '../snapshot/visitor-types.ts';
import { ACTION_MEASURES, LANDING_MEASURES } from '../vocabulary/measures.ts';
import { APP_NOTES } from './app-notes.ts';
import { PLAN_FILE, writePlanFile } from './plan-file.ts';
import { PROJECT_FILE, PROJECT_FORMAT, PROJECT_VERSION, writeProject } from './project-file.ts';
import { SCHEMA_NAMES, schemaFile, schemaText } from './schemas.ts';

const ajv = new Ajv2020({ strictTypes: false, strictRequired: false });
const schema = (name: (typeof SCHEMA_NAMES)[number]) => ajv.compile(JSON.parse(schemaText(name)));
const project = schema('project');
const planFile = schema('plan');
const notes = schema('notes');

it.each(SCHEMA_NAMES)('docs/schema holds that of the %s (else: node script/schemas.mjs)', (name) => {
  expect(fs.readFileSync(`docs/schema/${schemaFile(name)}`, 'utf8') === schemaText(name)).toBe(true);
});

/** Those of them that fit together, as hints have to. */
const FITTING = EVERY_DECISION.filter(
  (d) => d.kind !== 'hint' || (d.hint.place === 'script' && d.hint.on !== undefined),
);

describe('the published schemas', () => {
  const { snapshot, texts, sources } = readSource(SAMPLE);
  const limits = proposeLimits(
    snapshot,
    { name: 'P', description: '', decisions: [{ kind: 'grain' }] },
    DEFAULT_CONDITIONS,
    0.1,
  );
  const visits = [{ name: 'v', landing: '/', holds: [], steps: [{ does: 'deploy' as const, dwellMs: 1 }] }];
  const whole = () =>
    JSON.parse(
      writeProject({
        format: PROJECT_FORMAT,
        version: PROJECT_VERSION,
        snapshot,
        plans: [
          { name: 'P', description: '', decisions: EVERY_DECISION.filter((d) => d.kind !== 'hint'), basedOn: null },
        ],
        amendments: {
          confirmed: true,
          base: null,
          keep: ['x-*'],
          routes: [{ realm: 'site', pattern: '/', kind: 'changed', change: { landings: 4 } }],
          visits,
          limits,
        },
        texts,
        sources,
      }),
    );

  it('fit the sample, every kind of decision, limits and visits', () => {
    project(whole());
    expect(project.errors ?? []).toEqual([]);
    for (const decision of EVERY_DECISION) {
      planFile(JSON.parse(writePlanFile(snapshot, { name: 'P', description: '', decisions: [decision] })));
      expect({ decision, errors: planFile.errors ?? [] }).toEqual({ decision, errors: [] });
    }
    // And the program knows every decision that was tried.
    const known = EVERY_DECISION.filter((d) => d.kind !== 'hint');
    expect(DECISION_LIST.check(JSON.parse(JSON.stringify(known)), 'decisions')).toHaveLength(known.length);
  });

  it('know every measure that can be limited', () => {
    for (const measure of [...LANDING_MEASURES, ...ACTION_MEASURES]) {
      const file = whole();
      const action =
        (ACTION_MEASURES as readonly string[]).includes(measure) &&
        !(LANDING_MEASURES as readonly string[]).includes(measure);
      file.amendments.limits = [{ ...limits[0], measure, ...(action ? { action: 'x' } : {}) }];
      expect(project(file)).toBe(true);
    }
  });

  it.each<[string, (file: ReturnType<typeof whole>) => void]>([
    ['another format', (f) => (f.format = 'x')],
    ['a decision that there is not', (f) => (f.plans[0].decisions = [{ kind: 'burn' }])],
    ['a negative size', (f) => (f.snapshot.modules[0].bytes.gzip = -1)],
    ['an import of nothing', (f) => delete f.snapshot.imports[0].to],
    ['a limit of an action by a measure of landings', (f) => (f.amendments.limits = [{ ...limits[0], action: 'x' }])],
  ])('refuse %s', (_, change) => {
    const file = whole();
    change(file);
    expect(project(file)).toBe(false);
  });
});

const VISITORS: VisitorNotes = {
  ...{ segments: [{ name: 'crew', share: 0.2 }], touch: 0.5, dataSaver: 0.1, returning: 0.3, deployed: 0.2 },
  hesitation: { medianMs: 280, spread: 0.6 },
  routes: [
    {
      ...{ pattern: '/', dwell: { medianMs: 4000, spread: 0.5 }, moves: [{ to: '/b', share: 0.5 }] },
      acts: [{ part: 'x', share: 0.2, hesitation: { medianMs: 100, spread: 0 } }],
    },
  ],
};

/** What a schema can't say, since it is about several fields at once. */
const BEYOND_SCHEMAS = [
  ...['Module twice', 'Import of nothing', 'A number of nothing', 'Entry without a module', 'A hint that can’t be'],
  ...['Two routes with one pattern', 'Two parts with one name', 'Two plans with one name'],
];
const STRANGE = [
  null,
  true,
  false,
  -1,
  0,
  0.5,
  7,
  3e9,
  '',
  'x',
  ' / ',
  '/',
  'idle',
  'script',
  [],
  ['x'],
  {},
  { kind: 'media' },
];

/** All places in a value, as paths of names and numbers. */
function placesIn(value: unknown, at: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [at];
  const inside = Object.entries(value).flatMap(([key, item]) =>
    placesIn(item, [...at, Array.isArray(value) ? Number(key) : key]),
  );
  return at.length > 0 ? [at, ...inside] : inside;
}

/** A copy with one place taken out (`undefined`) or holding something else. */
function changed(value: unknown, place: (string | number)[], by: unknown): unknown {
  const copy = structuredClone(value);
  // biome-ignore lint/suspicious/noExplicitAny: any place in any value
  const parent = place.slice(0, -1).reduce((v: any, key) => v[key], copy);
  const last = place[place.length - 1];
  if (by !== undefined) parent[last] = by;
  else if (Array.isArray(parent)) parent.splice(Number(last), 1);
  else delete parent[last];
  return copy;
}

describe('checks and schemas agree', () => {
  const snapshot: Snapshot = {
    ...EVERY_KIND,
    visitors: VISITORS,
    output: {
      files: [
        {
          ...{ path: 'a.js', kind: 'script', bytes: { minified: 3, gzip: 2, brotli: 1 }, inside: 'names' },
          ...{ modules: [{ module: 0, bytes: 3 }], contents: [{ source: 'a', bytes: 3 }] },
          imports: [{ to: 0, kind: 'dynamic', line: 1 }],
        },
      ],
      starts: [{ realm: 'site', tags: [{ file: 0, placement: 'module', offset: 9 }] }],
    },
  };
  const amendments = {
    ...{ confirmed: true, base: '/app/', keep: ['is-*'], scripts: { chat: { bytes: 3, address: '/c.js' } } },
    routes: [{ realm: 'site', pattern: '/', kind: 'changed', change: snapshot.routes[0] }],
    visitors: VISITORS,
    visits: [
      {
        ...{ name: 'v', landing: '/', holds: ['x'] },
        steps: [
          { does: 'act', part: 'x' },
          { does: 'move', to: '/', by: 'document', holds: [] },
          { does: 'approach', to: '/' },
          { does: 'resize', width: 3, height: 4 },
          { does: 'return', to: '/', awayMs: 5, deployed: true },
        ],
      },
    ],
    limits: [
      { route: '/', measure: 'quiet', most: 3, link: 'l', device: 'd' },
      { route: '/', action: 'x', measure: 'wait', most: 3, link: 'l', device: 'd', cache: 'stale', plan: 'P' },
    ],
  };
  const files: [string, Form<unknown>, (value: unknown) => boolean, unknown][] = [
    [
      'project',
      PROJECT_FILE,
      project,
      { format: PROJECT_FORMAT, version: 1, snapshot, plans: [], amendments, texts: { a: 'b' }, sources: {} },
    ],
    [
      'plan',
      PLAN_FILE,
      planFile,
      JSON.parse(writePlanFile(snapshot, { name: 'P', description: '', decisions: FITTING })),
    ],
    [
      'notes',
      APP_NOTES,
      notes,
      {
        defaults: { rendering: 'server', document: { bytes: 1, serverMs: 2 } },
        shell: { parts: snapshot.routes[0].parts },
        routes: {
          '/': { content: snapshot.routes[0].content, data: snapshot.routes[0].data, links: ['/'], landings: 3 },
        },
        scripts: { chat: { name: 'Chat', bytes: 1 } },
        visitors: VISITORS,
      },
    ],
  ];

  it.each(files)('on a %s of which one place is another one', (_, form, fits, file) => {
    const places = placesIn(file);
    expect(fits(file)).toBe(true);
    form.check(file, '');
    let refused = 0;
    fc.assert(
      fc.property(fc.nat(places.length - 1), fc.constantFrom(undefined, ...STRANGE), (n, by) => {
        const other = changed(file, places[n], by);
        const schemaTakes = fits(other);
        try {
          form.check(other, '');
          expect(schemaTakes).toBe(true);
        } catch (error) {
          refused++;
          if (!(error instanceof InputError)) throw error;
          if (schemaTakes) expect(BEYOND_SCHEMAS).toContain(error.title);
        }
      }),
      { numRuns: 1500 },
    );
    expect(refused).toBeGreaterThan(300);
  });
});
