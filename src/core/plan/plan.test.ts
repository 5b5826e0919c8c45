import { route, sketch } from '../../test-support/snapshots.ts';
import { InputError } from '../errors.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import { TRIGGER_KINDS } from '../vocabulary/triggers.ts';
import { decisionWords, planDifference, shipsBy, subjectOf, withDecision, withoutSubject } from './decisions.ts';
import { effectivePlan, tellsFailure } from './effective.ts';
import { parseHint } from './hint-notation.ts';
import { parseFetch, parseImport } from './notation.ts';
import { BASELINE, DECISION_LIST, type Decision, PLAN } from './types.ts';

const snapshot = sketch(
  { 'src/main.ts': { imports: ['src/a.ts', '~src/b.ts', 'src/a.ts'] }, 'src/a.ts': {}, 'src/b.ts': {} },
  {
    routes: [
      route('/one', 'src/b.ts', {
        content: [
          {
            id: 'pic',
            kind: 'image',
            address: '/pic.jpg',
            bytes: 10,
            serverMs: 1,
            foundIn: 'document',
            place: 'below',
            lazy: false,
          },
        ],
      }),
    ],
    scripts: [
      {
        id: 'chat',
        name: 'chat',
        address: '/c.js',
        bytes: 1,
        serverMs: 1,
        evaluationMs: 1,
        placement: 'async',
        evidence: null,
      },
    ],
  },
);

describe('plans', () => {
  it('replace an earlier decision about the same subject in its place', () => {
    const first = withDecision(BASELINE, { kind: 'detach', import: 'src/main.ts::src/a.ts' });
    const second = withDecision(first, { kind: 'loader', loader: 'discovered' });
    const third = withDecision(second, { kind: 'join', import: 'src/main.ts::src/a.ts' });
    expect(third.decisions.map((d) => d.kind)).toEqual(['join', 'loader']);
    expect(withoutSubject(third, 'loader').decisions).toHaveLength(1);
    expect(withoutSubject(third, 'nothing')).toBe(third);
    expect(BASELINE.decisions).toHaveLength(0);
  });

  it('turn imports around and list what names nothing', () => {
    const decisions: Decision[] = [
      { kind: 'detach', import: 'src/main.ts::src/a.ts#1' },
      { kind: 'join', import: 'src/main.ts::src/b.ts' },
      { kind: 'detach', import: 'src/gone.ts::x' },
      { kind: 'trigger', splitPoint: 'src/gone.ts', fetch: { on: 'idle' } },
      { kind: 'script', script: 'chat', placement: 'defer' },
      { kind: 'script', script: 'gone', placement: 'defer' },
      {
        kind: 'hint',
        hint: { kind: 'preload', target: { kind: 'asset', address: '/gone.jpg' }, place: 'markup', routes: [] },
      },
    ];
    const effective = effectivePlan(snapshot, { ...BASELINE, decisions });
    expect([...effective.deferred]).toEqual([0, 0, 1]);
    expect(effective.placements.get('chat')).toBe('defer');
    expect(effective.stale.map((s) => s.decision)).toEqual([2, 3, 5, 6]);
  });

  it('say in words what they decide and how it ships', () => {
    const cases: [Decision, string, string][] = [
      [{ kind: 'detach', import: 'src/main.ts::./parts/fares' }, 'detach fares from main', 'source edit'],
      [
        { kind: 'trigger', splitPoint: 'src/x/index.ts', fetch: { on: 'after', ms: 300 } },
        'fetch x after 300 ms',
        'source edit',
      ],
      [
        { kind: 'trigger', splitPoint: 'src/menu.ts', fetch: { on: 'media', maxWidth: 640 } },
        'fetch menu up to 640 px wide',
        'source edit',
      ],
      [
        {
          kind: 'hint',
          hint: { kind: 'preload', target: { kind: 'asset', address: '/pic.jpg' }, place: 'early', routes: [] },
        },
        'preload pic.jpg as early hint',
        'server or markup',
      ],
      [{ kind: 'loader', loader: 'listed' }, 'list whole load groups', 'build setting'],
    ];
    for (const [decision, words, by] of cases) {
      expect(decisionWords(decision)).toBe(words);
      expect(shipsBy(decision)).toBe(by);
    }
    expect(shortName('@made/up')).toBe('@made/up');
    expect(new Set(cases.map(([d]) => subjectOf(d))).size).toBe(cases.length);
  });
});

describe('notation', () => {
  it('reads imports and hints', () => {
    expect(parseImport(snapshot, 'src/main.ts::src/a.ts#1')).toBe('src/main.ts::src/a.ts#1');
    expect(parseHint(snapshot, 'modulepreload:src/b.ts@header')).toEqual({
      kind: 'modulepreload',
      target: { kind: 'split point', module: 'src/b.ts' },
      place: 'header',
      routes: [],
    });
    expect(parseHint(snapshot, 'preload:/pic.jpg').target).toEqual({ kind: 'asset', address: '/pic.jpg' });
    expect(parseHint(snapshot, 'prefetch:/one@markup', ['/one']).target).toEqual({ kind: 'route', pattern: '/one' });
    expect(parseHint(snapshot, 'preconnect:https://far.example@markup').target).toEqual({
      kind: 'origin',
      origin: 'https://far.example',
    });
  });

  it('reads when a split point is fetched', () => {
    expect(parseFetch(snapshot, 'src/b.ts@after:2000')).toEqual({
      splitPoint: 'src/b.ts',
      fetch: { on: 'after', ms: 2000 },
    });
    expect(parseFetch(snapshot, 'src/b.ts@idle')).toEqual({ splitPoint: 'src/b.ts', fetch: { on: 'idle' } });
  });

  it.each([
    [() => parseFetch(snapshot, 'src/b.ts'), 'PATH@MOMENT'],
    [() => parseFetch(snapshot, '@idle'), 'PATH@MOMENT'],
    [() => parseFetch(snapshot, 'src/none.ts@idle'), 'PATH@MOMENT'],
    [() => parseFetch(snapshot, 'src/b.ts@soon'), 'Choose one of at once'],
    [() => parseImport(snapshot, 'src/main.ts'), 'FROM::SPECIFIER'],
    [() => parseImport(snapshot, 'src/none.ts::x'), 'no module src/none.ts'],
    [() => parseImport(snapshot, 'src/main.ts::x'), 'It imports src/a.ts, src/b.ts'],
    [() => parseHint(snapshot, 'hurry:src/b.ts'), 'KIND one of preload'],
    [() => parseHint(snapshot, 'preload:src/b.ts@moon'), 'markup, header, early'],
    [() => parseHint(snapshot, 'preload:/none.jpg'), 'no module, route'],
  ])('says what is wrong with what it can’t read (%#)', (read, words) => {
    expect(read).toThrow(InputError);
    expect(read).toThrow(words);
  });
});

describe('checks of plans from outside', () => {
  it('take every kind of decision as it is', () => {
    const decisions: Decision[] = [
      { kind: 'detach', import: 'a::b' },
      { kind: 'join', import: 'a::c' },
      { kind: 'trigger', splitPoint: 'b', fetch: { on: 'answer', of: 'call' } },
      { kind: 'trigger', splitPoint: 'c', fetch: { on: 'media', minWidth: 700 } },
      { kind: 'trigger', splitPoint: 'd', fetch: { on: 'event', name: 'paid' } },
      { kind: 'trigger', splitPoint: 'e', fetch: { on: 'after', ms: 10 } },
      {
        kind: 'hint',
        hint: { kind: 'prefetch', target: { kind: 'route', pattern: '/' }, place: 'header', routes: ['/'] },
      },
      {
        kind: 'hint',
        hint: {
          kind: 'preconnect',
          target: { kind: 'origin', origin: 'https://x.example' },
          place: 'early',
          routes: [],
        },
      },
      {
        kind: 'hint',
        hint: { kind: 'preload', target: { kind: 'asset', address: '/p' }, place: 'markup', routes: [] },
      },
      {
        kind: 'hint',
        hint: { kind: 'preload', target: { kind: 'split point', module: 'b' }, place: 'markup', routes: [] },
      },
      { kind: 'script', script: 's', placement: 'after load' },
      { kind: 'loader', loader: 'discovered' },
    ];
    expect(DECISION_LIST.check(JSON.parse(JSON.stringify(decisions)), 'decisions')).toEqual(decisions);
  });

  it.each([
    [{ name: 'x', decisions: [{ kind: 'explode' }] }, 'plan.decisions[0].kind must be one of detach'],
    [{ name: 'x', decisions: [{ kind: 'detach' }] }, 'plan.decisions[0].import must be a text, not missing'],
    [
      { name: 'x', decisions: [{ kind: 'trigger', splitPoint: 'a', fetch: { on: 'after', ms: -1 } }] },
      'decisions[0].fetch.ms',
    ],
    [{ name: 7, decisions: [] }, 'plan.name must be a text, not 7'],
    [{ name: 'x' }, 'plan.decisions must be a list'],
  ])('name the field (%#)', (value, words) => {
    expect(() => PLAN.check(value, 'plan')).toThrow(words);
  });
});

describe('a detachment that takes more than detaching', () => {
  it('is told with the reason and the line, however it was asked for', () => {
    const app = sketch({ main: { imports: ['kit'] }, kit: { package: 'kit' } });
    const imports = app.imports.map((i) => ({ ...i, sync: { reason: 'a class extends it', line: 7 } }));
    const held = { ...app, imports };
    const of = (choice: { import: string } | { package: string }) =>
      effectivePlan(held, { ...BASELINE, decisions: [{ kind: 'detach', ...choice }] });
    const expected = [{ decision: 0, import: 'main::kit', reason: 'a class extends it', line: 7 }];
    expect(of({ import: 'main::kit' }).blocked).toEqual(expected);
    expect(of({ package: 'kit' }).blocked).toEqual(expected);
    expect(effectivePlan(held, BASELINE).blocked).toEqual([]);
  });

  it('tell how they differ from another', () => {
    const of = (...decisions: Decision[]) => ({ ...BASELINE, decisions });
    const trigger = (on: 'idle' | 'visible'): Decision => ({ kind: 'trigger', splitPoint: 'a', fetch: { on } });
    const loader: Decision = { kind: 'loader', loader: 'discovered' };
    const floor: Decision = { kind: 'floor', bytes: 1000 };
    expect(planDifference(of(trigger('idle'), loader), of(trigger('visible'), floor))).toEqual({
      added: [loader],
      missing: [floor],
      changed: [{ now: trigger('idle'), was: trigger('visible') }],
    });
  });

  it('that detaches a package leaves the imports inside of it', () => {
    const app = sketch({
      main: { imports: ['p/index', 'p/more'] },
      'p/index': { imports: ['p/more'], package: 'p' },
      'p/more': { package: 'p' },
    });
    const { deferred } = effectivePlan(app, { ...BASELINE, decisions: [{ kind: 'detach', package: 'p' }] });
    expect([...deferred]).toEqual([1, 1, 0]);
  });

  it('says that a deferred piece tells its failure: where the plan does, else where all code that asks for it does', () => {
    const deferred = sketch({ main: { imports: ['~a', '~b', 'other'] }, other: { imports: ['~b'] }, a: {}, b: {} });
    const caughtBy = (...from: string[]) => ({
      ...deferred,
      imports: deferred.imports.map((i) =>
        from.includes(deferred.modules[i.from].path) ? { ...i, caught: true as const } : i,
      ),
    });
    const tells = (app: Snapshot, module: string, decisions: Decision[] = []) =>
      tellsFailure(effectivePlan(app, { ...BASELINE, decisions }), module);
    expect(tells(caughtBy('main'), 'a')).toBe(true);
    expect(tells(caughtBy(), 'a')).toBe(false);
    // Two ask for it; one would fail in silence.
    expect(tells(caughtBy('main'), 'b')).toBe(false);
    expect(tells(caughtBy('main', 'other'), 'b')).toBe(true);
    const says = (onError: 'nothing' | 'a message'): Decision[] => [{ kind: 'split', splitPoint: 'a', onError }];
    expect(tells(caughtBy(), 'a', says('a message'))).toBe(true);
    expect(tells(caughtBy('main'), 'a', says('nothing'))).toBe(false);
  });
});

describe('a hint that a script adds', () => {
  it.each(TRIGGER_KINDS)('is given at %s where a link can be added then', (on) => {
    const trigger = { on, ms: 5, condition: { minWidth: 5 }, name: 'x', of: 'me' };
    const hint = { kind: 'prefetch', place: 'script', target: { kind: 'route', pattern: '/two' }, routes: ['/one'] };
    const checked = () => DECISION_LIST.check([{ kind: 'hint', hint: { ...hint, on: trigger } }], 'plan');
    if (['action', 'media', 'answer', 'event'].includes(on)) expect(checked).toThrow('Choose one of at once');
    else expect(checked).not.toThrow();
  });
});
