import { route, sketch } from '../../test-support/snapshots.ts';
import { decisionWords, shipsBy, subjectOf, withDecision } from './decisions.ts';
import { effectivePlan } from './effective.ts';
import { BASELINE, DECISION_LIST, type Decision } from './types.ts';

/** Every kind of decision about files, and about imports in bulk, with what it is called. */
const SAID: [Decision, string, string][] = [
  [{ kind: 'detach', module: 'src/a.ts' }, 'detach every import of a', 'imports of src/a.ts'],
  [{ kind: 'join', package: '@made/up' }, 'join the package @made/up', 'imports of package @made/up'],
  [{ kind: 'gather', name: 'charts', match: { package: 'kit' } }, 'gather kit as “charts”', 'gather charts'],
  [{ kind: 'apart', match: { path: 'src/x/**' } }, 'keep src/x/** apart', 'apart src/x/**'],
  [{ kind: 'together', modules: ['src/b.ts', 'src/a.ts'] }, 'keep b, a together', 'together src/a.ts src/b.ts'],
  [{ kind: 'floor', bytes: 20_000 }, 'no chunk under 20 kB', 'floor'],
  [{ kind: 'ceiling', requests: 4 }, 'at most 4 chunks per moment', 'ceiling'],
  [{ kind: 'copy', below: 1500 }, 'copy what is shared under 1.5 kB', 'copy'],
  [{ kind: 'grain' }, 'one file per module', 'grain'],
  [
    {
      kind: 'split',
      splitPoint: 'src/a.ts',
      run: { on: 'idle' },
      fallback: { show: 'stand-in', holdMs: 300 },
      together: 'g',
      clientOnly: true,
    },
    'a: run when idle, a stand-in for at least 300 ms, shown together with “g”, client only',
    'split src/a.ts',
  ],
  [{ kind: 'chunk name', chunk: 'site/abc', name: 'mine' }, 'call a chunk “mine”', 'chunk name site/abc'],
];

describe('decisions about files', () => {
  it.each(SAID)('%j is “%s”, and is taken from outside as it is', (decision, words, subject) => {
    expect(decisionWords(decision)).toBe(words);
    expect(subjectOf(decision)).toBe(subject);
    expect(DECISION_LIST.check([JSON.parse(JSON.stringify(decision))], 'decisions')).toEqual([decision]);
    const byEdit = ['detach', 'join', 'split'].includes(decision.kind);
    expect(shipsBy(decision)).toBe(byEdit ? 'source edit' : 'build setting');
  });

  it('replace an earlier one about the same subject, and only that', () => {
    const plan = [
      { kind: 'floor', bytes: 1 } as const,
      { kind: 'ceiling', requests: 3 } as const,
      { kind: 'floor', bytes: 2 } as const,
    ].reduce(withDecision, BASELINE);
    expect(plan.decisions).toEqual([
      { kind: 'floor', bytes: 2 },
      { kind: 'ceiling', requests: 3 },
    ]);
  });

  it.each([
    [{ kind: 'gather', name: ' ', match: { path: 'x' } }, 'decisions[0].name'],
    [{ kind: 'gather', name: 'x', match: {} }, 'decisions[0].match.path'],
    [{ kind: 'together', modules: [1] }, 'decisions[0].modules[0]'],
    [{ kind: 'floor', bytes: -1 }, 'decisions[0].bytes'],
    [{ kind: 'ceiling', requests: 'few' }, 'decisions[0].requests'],
    [{ kind: 'chunk name', chunk: 'c', name: 'x'.repeat(81) }, 'decisions[0].name'],
    [{ kind: 'detach' }, 'decisions[0].import'],
  ])('that don’t fit (%j) are refused by the field', (wrong, at) => {
    expect(() => DECISION_LIST.check([wrong], 'decisions')).toThrow(expect.objectContaining({ at }));
  });

  it('about imports in bulk hold for later single ones, in their order', () => {
    const app = sketch(
      { main: { imports: ['a', 'b'] }, a: { imports: ['c'] }, b: { imports: ['c'] }, c: {} },
      { routes: [route('/', 'main')] },
    );
    const deferred = (...decisions: Decision[]) => [...effectivePlan(app, { ...BASELINE, decisions }).deferred];
    const all: Decision = { kind: 'detach', module: 'c' };
    expect(deferred(all)).toEqual([0, 0, 1, 1]);
    expect(deferred(all, { kind: 'join', import: 'b::c' })).toEqual([0, 0, 1, 0]);
    expect(deferred({ kind: 'join', import: 'b::c' }, all)).toEqual([0, 0, 1, 1]);
  });
});
