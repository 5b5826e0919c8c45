import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/**
 * Probes of one round are compiled together, since compiling takes seconds: no file answers to two kinds of one round.
 */
type Round = 1 | 2 | 3;

interface Probe {
  name: string;
  round: Round;
  /** The file of the vocabulary, a place in it, and what is put before that place. */
  file: string;
  before: string;
  put: string;
  /** Files in which the compiler has to complain: every place that answers to kinds of this vocabulary. */
  answers: string[];
}

const PROBES: Probe[] = [
  {
    name: 'a trigger',
    round: 1,
    file: 'core/vocabulary/triggers.ts',
    before: '    action: NOTHING_ELSE,',
    put: '    keypress: NOTHING_ELSE,\n',
    answers: [
      'core/choose/split-candidates.ts',
      'core/handoff/script.ts',
      'core/load-sheet/sheet.ts',
      'core/load/trigger-rules.ts',
      'core/plan/hint-check.ts',
      'core/vocabulary/triggers.ts',
      'patch/triggers.ts',
      'test-support/plans.ts',
      'ui/parts/triggers.ts',
      'ui/stations/split/split-settings.tsx',
    ],
  },
  {
    name: 'a hint about a next document',
    round: 1,
    file: 'core/vocabulary/hints.ts',
    before: "  'prepare document': {",
    put: "  probe: { by: 'rule', targets: ['route'] },\n",
    answers: ['core/handoff/markup.ts', 'core/load/hints.ts'],
  },
  {
    name: 'a hint that is a link',
    round: 3,
    file: 'core/vocabulary/hints.ts',
    before: '  preconnect: {',
    put: "  probe: { by: 'link', targets: ['route'] },\n",
    answers: ['core/load/hints.ts'],
  },
  {
    name: 'a place of hints',
    round: 2,
    file: 'core/vocabulary/hints.ts',
    before: "  early: 'as",
    put: "  probe: 'as a probe',\n",
    answers: ['core/choose/hint-candidates.ts', 'core/handoff/planned-links.ts', 'core/load/hints.ts'],
  },
  {
    name: 'a measure',
    round: 1,
    file: 'core/vocabulary/measures.ts',
    before: '  requests: REQUESTS,',
    put: '  probe: REQUESTS,\n',
    answers: ['core/compare/figures.ts'],
  },
  {
    name: 'a state of the cache',
    round: 1,
    file: 'core/vocabulary/cache-states.ts',
    before: '  stale: {',
    put: "  probe: { name: '', note: '' },\n",
    answers: ['core/sim/http-cache.ts'],
  },
  {
    name: 'a finding',
    round: 1,
    file: 'core/vocabulary/findings.ts',
    before: '  staircase: {',
    put: "  probe: { at: 'split' },\n",
    answers: ['core/advise/advise.ts'],
  },
  {
    name: 'a station',
    round: 1,
    file: 'core/vocabulary/stations.ts',
    before: '  visits: {',
    put: "  probe: { name: 'Probe', key: '9' },\n",
    answers: ['ui/frame/station-views.tsx'],
  },
  {
    name: 'a decision',
    round: 2,
    file: 'core/plan/types.ts',
    before: '  grain: record({}),',
    put: '  probe: record({}),\n',
    answers: [
      'core/plan/decision-kinds.ts',
      'core/plan/effective.ts',
      'core/plan/shaping.ts',
      'core/reconcile/reconcile.ts',
      'patch/patch.ts',
      'test-support/plans.ts',
    ],
  },
  {
    name: 'a decision about what ships',
    round: 3,
    file: 'core/plan/types.ts',
    before: '  trim: record({ module: TEXT }),',
    put: '  probe: record({}),\n',
    answers: ['core/plan/decision-kinds.ts', 'core/plan/effective.ts', 'core/ship/shipped.ts', 'patch/patch.ts'],
  },
  {
    name: 'an effect',
    round: 1,
    file: 'core/load/types.ts',
    before: "  | { kind: 'scroll'; part: number }",
    put: "  | { kind: 'probe' }\n",
    answers: ['core/advise/interaction-key.ts', 'core/formats/load-case.ts', 'core/sim/triggers.ts'],
  },
  {
    name: 'a moment',
    round: 2,
    file: 'core/load/types.ts',
    before: 'export type ActionMoment = ',
    put: '',
    answers: ['core/sim/triggers.ts'],
  },
];

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-kinds-'));

/** Files in which the compiler complains, from `src` on. */
function complaints(): string[] {
  const { stdout } = spawnSync(process.execPath, [path.resolve('node_modules/typescript/bin/tsc')], {
    cwd: folder,
    encoding: 'utf8',
  });
  return [...new Set([...stdout.matchAll(/^src\/(\S+?)\(\d+,\d+\): error/gm)].map((m) => m[1]))];
}

/** Puts a kind more into the vocabulary of a probe. */
function add({ file, before, put }: Probe): void {
  const at = path.join(folder, 'src', file);
  const text = fs.readFileSync(at, 'utf8');
  expect(text).toContain(before);
  // A union that stands in one line is made longer at its beginning.
  fs.writeFileSync(
    at,
    text.replace(before, (b) => (put === '' ? `${b}'probe' | ` : `${put}${b}`)),
  );
}

describe.each<Round>([1, 2, 3])('a kind more, round %i', (round) => {
  const probes = PROBES.filter((p) => p.round === round);
  let found: string[] = [];

  beforeAll(() => {
    fs.cpSync('src', path.join(folder, 'src'), { recursive: true });
    for (const file of ['tsconfig.json', 'package.json']) fs.copyFileSync(file, path.join(folder, file));
    fs.rmSync(path.join(folder, 'node_modules'), { force: true });
    fs.symlinkSync(path.resolve('node_modules'), path.join(folder, 'node_modules'));
    for (const probe of probes) add(probe);
    found = complaints();
  });
  afterAll(() => fs.rmSync(path.join(folder, 'src'), { recursive: true }));

  it('answers of one round lie in files of their own', () => {
    const answers = probes.flatMap((p) => p.answers);
    expect(new Set(answers).size).toBe(answers.length);
  });

  it.each(probes)('$name has to be answered in every layer', ({ answers }) => {
    expect(found).toEqual(expect.arrayContaining(answers));
  });
});

afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));
