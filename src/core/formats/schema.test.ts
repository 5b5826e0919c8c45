import fs from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { readSource } from '../../reader/read-source.ts';
import { SAMPLE } from '../../test-support/folders.ts';
import { proposeLimits } from '../limits/limits.ts';
import { checkDecisions } from '../plan/check.ts';
import type { Decision } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { HINT_KINDS, HINT_PLACES } from '../vocabulary/hints.ts';
import { ACTION_MEASURES, LANDING_MEASURES } from '../vocabulary/measures.ts';
import { writePlanFile } from './plan-file.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, writeProject } from './project-file.ts';

const ajv = new Ajv2020({ strictTypes: false, strictRequired: false });
const schema = (name: string) => ajv.compile(JSON.parse(fs.readFileSync(`docs/schema/${name}.schema.json`, 'utf8')));
const project = schema('project');
const planFile = schema('plan');

/** One decision of every kind, with all that it may say. */
const EVERY: Decision[] = [
  { kind: 'detach', import: 'a::b' },
  { kind: 'join', module: 'a' },
  { kind: 'detach', package: 'p' },
  { kind: 'trigger', splitPoint: 'a', fetch: { on: 'after', ms: 100 } },
  { kind: 'trigger', splitPoint: 'a', fetch: { on: 'media', maxWidth: 600 } },
  { kind: 'trigger', splitPoint: 'a', fetch: { on: 'answer', of: 'x' } },
  { kind: 'trigger', splitPoint: 'a', fetch: { on: 'event', name: 'x' } },
  {
    kind: 'split',
    splitPoint: 'a',
    run: { on: 'idle' },
    show: { on: 'visible' },
    fallback: { show: 'stand-in', holdMs: 300, scope: 'area' },
    onError: 'a message',
    together: 'g',
    clientOnly: true,
    data: 'with the code',
    answerAhead: { keepMs: 1000 },
  },
  ...HINT_KINDS.flatMap((kind) =>
    HINT_PLACES.map(
      (place): Decision => ({
        kind: 'hint',
        hint: { kind, place, target: { kind: 'route', pattern: '/' }, routes: [] },
      }),
    ),
  ),
  {
    kind: 'hint',
    hint: {
      kind: 'preload',
      place: 'script',
      target: { kind: 'asset', address: '/a.jpg' },
      routes: ['/'],
      on: { on: 'approach' },
      priority: 'high',
      as: 'image',
      crossorigin: true,
      media: { minWidth: 300 },
      notForDataSaver: true,
    },
  },
  { kind: 'script', script: 's', placement: 'after load' },
  { kind: 'loader', loader: 'discovered' },
  { kind: 'drop link', rel: 'preload', address: '/x' },
  { kind: 'put aside', finding: 'f', reason: 'r' },
  { kind: 'no script', module: 'a' },
  { kind: 'trim', module: 'a' },
  { kind: 'one version', package: 'p', keep: 'k' },
  { kind: 'move', import: 'a::b', to: 'c' },
  { kind: 'style in script', match: { path: 'src/**' } },
  { kind: 'gather', name: 'g', match: { package: 'p' } },
  { kind: 'together', modules: ['a', 'b'] },
  { kind: 'apart', match: { package: 'p' } },
  { kind: 'floor', bytes: 1 },
  { kind: 'ceiling', requests: 2 },
  { kind: 'copy', below: 3 },
  { kind: 'grain' },
  { kind: 'chunk name', chunk: 'c', name: 'n' },
];

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
        plans: [{ name: 'P', description: '', decisions: EVERY.filter((d) => d.kind !== 'hint'), basedOn: null }],
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
    for (const decision of EVERY) {
      planFile(JSON.parse(writePlanFile(snapshot, { name: 'P', description: '', decisions: [decision] })));
      expect({ decision, errors: planFile.errors ?? [] }).toEqual({ decision, errors: [] });
    }
    // And the program knows every decision that was tried.
    const known = EVERY.filter((d) => d.kind !== 'hint');
    expect(checkDecisions(JSON.parse(JSON.stringify(known)), 'decisions')).toHaveLength(known.length);
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
