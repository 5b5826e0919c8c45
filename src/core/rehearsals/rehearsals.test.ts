import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import { part as namedPart, route, sketch } from '../../test-support/snapshots.ts';
import { withMeasured } from '../amend/with-measured.ts';
import type { MarkupItem, ScreenPart } from '../load/types.ts';
import { readTimeline } from '../metrics/readout.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { HEADERS } from '../recordings/match.ts';
import type { RecordedRequest } from '../recordings/types.ts';
import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { asRehearsed } from './as-rehearsed.ts';
import { conditionsAsRun } from './conditions-as-run.ts';
import { differencesOf } from './differences.ts';
import { drawingTimes } from './drawing-times.ts';
import { learnt } from './learn.ts';
import { middleRun } from './middle-run.ts';
import { predictedOf } from './predicted.ts';
import { type Beside, gainsOf, quantitiesBeside, type Verdict } from './quantities.ts';
import type { RawLanding } from './raw.ts';
import { readRun, watchedModules } from './read-run.ts';
import { spreadOf } from './spread.ts';
import { measuredOf, summaryOf } from './summary.ts';
import type { Rehearsal, RehearsedRun } from './types.ts';
import { besideWords, differenceWords, gainWords, leftOutWords, offWords, slowedWords, spreadWords } from './words.ts';

const entry: MarkupItem = { at: 100, tag: 'script', group: 0, mode: 'module' };
const part = (id: string, more: Partial<ScreenPart> = {}): ScreenPart =>
  screenPart(id, { needs: [{ resource: 0, state: 'evaluated' }], renderMs: 10, ...more });
const program = {
  ...page([entry], [file('/entry-1a2b3c.js', { bytes: 40_000 }), file('/late.js', { bytes: 9000 })]),
  parts: [part('shell', { renderMs: 30 }), part('page')],
};
const timeline = simulate(program, ROUND);
const { milestones } = readTimeline(program, timeline, ROUND);

const run = (more: Partial<RehearsedRun> = {}): RehearsedRun => ({
  requests: [],
  moments: { firstContent: 500, largestContent: 520, contentLoaded: 400, load: 450, interactive: 600 },
  ...{ parts: [], tasks: [], modules: {}, slowed: 1, busy: 0, errors: [] },
  ...more,
});
const rehearsal = (runs: RehearsedRun[], more: Partial<Rehearsal> = {}): Rehearsal => ({
  ...{ plan: 'Lean', pattern: '/', address: '/', conditions: ROUND, browser: 'Chromium 1', at: '2026-11-29T10:00:00Z' },
  ...{ runs, leftOut: [], told: [] },
  ...more,
});
const at = (interactive: number | null) => run({ moments: { ...run().moments, interactive } });

describe('what was measured several times', () => {
  it('has a middle, a least and a most; of nothing there is none', () => {
    expect(spreadOf([30, 10, null, 20, undefined, Number.NaN])).toEqual({ median: 20, least: 10, most: 30, runs: 3 });
    expect(spreadOf([10, 40])?.median).toBe(25);
    expect(spreadOf([null])).toBeNull();
    expect(spreadWords({ median: 1064.4, least: 1050, most: 1074, runs: 3 })).toBe('1064 ± 12 ms');
    expect([spreadWords({ median: 10, least: 10, most: 10, runs: 1 }), spreadWords(null)]).toEqual([
      '10 ms',
      'not seen',
    ]);
  });

  it('has a run in the middle', () => {
    const runs = [at(900), at(500), at(700), at(null)];
    expect(middleRun({ runs }).moments.interactive).toBe(500);
    expect(middleRun({ runs: runs.slice(0, 3) }).moments.interactive).toBe(700);
  });
});

describe('quantities side by side', () => {
  it('say by how much of the rehearsed the prediction is off', () => {
    const made = rehearsal([at(milestones.interactive * 2), at(milestones.interactive * 2)]);
    const beside = quantitiesBeside({ milestones, timeline }, made);
    const interactive = beside.find((b) => b.quantity === 'interactive')!;
    expect(interactive.off).toBeCloseTo(-0.5);
    expect(besideWords(interactive)[3]).toBe('−50 %');
    expect([0.126, -0.004, 0.996, null].map(offWords)).toEqual(['+13 %', '0 %', '+100 %', '']);
    const never = quantitiesBeside({ milestones: { ...milestones, interactive: Number.NaN }, timeline }, made);
    expect(never.find((b) => b.quantity === 'interactive')).toMatchObject({ predicted: null, off: null });
  });

  const beside = (predicted: number, least: number, most = least): Beside[] => [
    {
      ...{ quantity: 'interactive', name: 'Interactive', predicted, off: null },
      rehearsed: { median: (least + most) / 2, least, most, runs: 2 },
    },
  ];
  it.each<[string, Beside[], Beside[], Verdict]>([
    ['as it was promised', beside(1000, 1000), beside(700, 690), 'as predicted'],
    ['within the spread', beside(1000, 950, 1050), beside(990, 940, 1040), 'too small to tell'],
    ['much less', beside(1000, 1000), beside(500, 900), 'less than predicted'],
    ['much more', beside(1000, 1000), beside(900, 500), 'more than predicted'],
    ['against it', beside(1000, 1000), beside(800, 1200), 'the other way'],
    ['near enough for its spread', beside(1000, 960, 1040), beside(750, 640, 760), 'as predicted'],
  ])('a gain that came %s', (_, before, after, verdict) => {
    const [gain] = gainsOf(before, after);
    expect(gain.verdict).toBe(verdict);
    expect(gainWords(gain)[3]).toBe(verdict);
  });

  it('have no verdict where one of them was never seen', () => {
    const [gain] = gainsOf([{ ...beside(1000, 0)[0], rehearsed: null }], beside(900, 900));
    expect(gain).toMatchObject({ predicted: 100, rehearsed: null, give: null, verdict: null });
    expect(gainWords(gain)).toEqual(['Interactive', '−100 ms', 'not seen', '']);
    const [other] = gainsOf(beside(1000, 1000), [{ ...beside(0, 900)[0], predicted: null }]);
    expect(other).toMatchObject({ predicted: null, rehearsed: 100, give: 0, verdict: null });
    expect(gainWords(other)).toEqual(['Interactive', '', '−100 ms ± 0', '']);
  });

  it('have a sign from half a millisecond on', () => {
    const words = (predicted: number) =>
      gainWords({ ...{ quantity: 'interactive', name: '', rehearsed: null, give: null, verdict: null }, predicted })[1];
    expect([words(0), words(0.4), words(-0.4), words(0.6), words(-2)]).toEqual([
      '0 ms',
      '0 ms',
      '0 ms',
      '−1 ms',
      '+2 ms',
    ]);
  });
});

describe('differences', () => {
  const [document, first] = timeline.requests;
  const recorded = (of: typeof first, more: Partial<RecordedRequest> = {}): RecordedRequest => ({
    ...{ address: `https://app.test${of.address}`, discovered: of.discovered, sent: of.sent },
    ...{ firstByte: of.firstByte, end: of.end, bytes: of.bytes + 300 },
    ...more,
  });
  const found = (requests: RecordedRequest[]) =>
    differencesOf({ timeline, program }, rehearsal([run({ requests, parts: [] })])).map((d) => [d.what, d.cause]);

  it('aren’t told where there are none', () => {
    expect(found([recorded(document), recorded(first)])).toEqual([]);
  });

  it('have the cause that most of them comes from', () => {
    const later = first.end + 300;
    expect(found([recorded(document), recorded(first, { end: later })])).toEqual([[first.name, 'transport']]);
    expect(found([recorded(document), recorded(first, { end: later, bytes: first.bytes * 2 })])).toEqual([
      [first.name, 'size'],
    ]);
    expect(found([recorded(document), recorded(first, { discovered: first.discovered + 300, end: later })])).toEqual([
      [first.name, 'asked later'],
    ]);
    expect(found([recorded(document)])).toEqual([[first.name, 'not asked for']]);
    expect(found([recorded(document), recorded(first), recorded(first, { address: 'https://app.test/x.js' })])).toEqual(
      [['/x.js', 'not predicted']],
    );
  });

  it('are told the largest first, as many as are asked for', () => {
    const parts = [
      { part: 'shell', shown: 4000, drawMs: 1, late: false },
      { part: 'page', shown: 5000, drawMs: 1, late: false },
    ];
    const made = rehearsal([run({ requests: [recorded(document), recorded(first, { end: first.end + 50 })], parts })]);
    const told = (most?: number) => differencesOf({ timeline, program }, made, most).map((d) => d.what);
    expect(told()).toEqual(['page (shown)', 'shell (shown)', first.name]);
    expect(told(2)).toEqual(['page (shown)', 'shell (shown)']);
  });

  it('aren’t told of parts that came as predicted, or were never seen', () => {
    const page = timeline.reveals.find((v) => program.parts[v.part].id === 'page' && v.state === 'shown')!.at;
    const shown = (at: number | null) =>
      differencesOf(
        { timeline, program },
        rehearsal([
          run({
            requests: [recorded(document), recorded(first)],
            parts: [{ part: 'page', shown: at, drawMs: 1, late: false }],
          }),
        ]),
      ).length;
    expect([shown(page), shown(page + 9), shown(page + 60), shown(null)]).toEqual([0, 0, 1, 0]);
  });

  it('come of another size from one in twenty on, headers left out', () => {
    const later = first.end + 300;
    const of = (bytes: number) => found([recorded(document), recorded(first, { end: later, bytes })])[0][1];
    const same = first.bytes + HEADERS;
    expect([of(same), of(same * 1.04), of(same / 0.94), of(same / 1.06)]).toEqual([
      'transport',
      'transport',
      'size',
      'size',
    ]);
  });

  it('are told from 10 ms and from three in a hundred on', () => {
    const told = (end: number) => found([recorded(document), recorded(first, { end: first.end + end })]).length;
    expect(first.end * 0.03).toBeGreaterThan(10);
    expect([told(9), told(first.end * 0.029), told(first.end * 0.035)]).toEqual([0, 0, 1]);
    // Early in a load 10 ms count, later a share does.
    const soon = (by: number) =>
      differencesOf(
        { timeline: { ...timeline, reveals: [{ part: 1, state: 'shown', at: 100 } as never] }, program },
        rehearsal([
          run({
            requests: [recorded(document), recorded(first)],
            parts: [{ part: 'page', shown: 100 + by, drawMs: 1, late: false }],
          }),
        ]),
      ).length;
    expect([soon(9.9), soon(10), soon(-10)]).toEqual([0, 1, 1]);
  });

  it('come by their names, those of other servers whole', () => {
    const named = (address: string) => found([recorded(document), recorded(first), recorded(first, { address })])[0][0];
    expect([named('https://app.test/a/b.js?c'), named('https://far.test')]).toEqual(['/a/b.js?c', 'https://far.test']);
  });

  it('that come half of one and half of another are told by when they were asked for', () => {
    const both = recorded(first, { discovered: first.discovered + 150, end: first.end + 300 });
    expect(found([recorded(document), both])).toEqual([[first.name, 'asked later']]);
    const less = recorded(first, { discovered: first.discovered + 149, end: first.end + 300 });
    expect(found([recorded(document), less])).toEqual([[first.name, 'transport']]);
    const fromCache = recorded(first, { end: first.end + 300, bytes: 0 });
    expect(found([recorded(document), fromCache])).toEqual([[first.name, 'transport']]);
  });

  it('have no other size where a size isn’t known', () => {
    const later = first.end + 300;
    expect(found([recorded(document), recorded(first, { end: later, bytes: 0 })])).toEqual([[first.name, 'transport']]);
  });

  it('are told of parts as well, in words', () => {
    const made = rehearsal([
      run({
        requests: [recorded(document), recorded(first)],
        parts: [{ part: 'page', shown: 5000, drawMs: 1, late: false }],
      }),
    ]);
    const [difference] = differencesOf({ timeline, program }, made);
    expect(difference).toMatchObject({ what: 'page (shown)', cause: 'thread', rehearsed: 5000 });
    expect(differenceWords(difference)).toMatch(
      /^page \(shown\): \d+ ms predicted, 5000 ms rehearsed: ran, or was drawn/,
    );
    expect(differenceWords({ what: 'a', cause: 'not asked for', predicted: 10, rehearsed: null })).toBe(
      'a: was never asked for (predicted at 10 ms)',
    );
  });
});

describe('what drawing took', () => {
  const drawn = (shown: (number | null)[], tasks: RehearsedRun['tasks'], times = {}) =>
    drawingTimes({ shown, tasks, times }, program, { chunks: [] }, 1);

  it('is shared by the parts that were painted together, as it was reckoned', () => {
    const [shell, own] = drawn([500, 500], [{ start: 400, end: 480, of: { draw: 60, compile: 20 } }]);
    expect([shell, own]).toEqual([60, 20]);
  });

  it('is nothing where nothing was drawn, laid out or compiled', () => {
    expect(drawn([500, null], [{ start: 400, end: 480, of: { paint: 70 } as never }])).toEqual([0, null]);
  });

  it('leaves out what ran, and painting that the model counts by itself', () => {
    const tasks = [
      { start: 300, end: 400, of: { run: 80, compile: 20 } },
      { start: 400, end: 440, of: { draw: 20, layout: 20 } },
    ];
    expect(drawn([500, null], tasks)).toEqual([24, null]);
  });

  it('goes to who is painted next, task by task, in part where a paint comes between', () => {
    const tasks = [{ start: 400, end: 600, of: { draw: 200 } }];
    expect(drawn([500, 700], tasks)).toEqual([100, 100]);
  });

  it('goes from paint to paint in the order of time, whatever the order of the parts', () => {
    const tasks = [
      { start: 300, end: 400, of: { draw: 30 } },
      { start: 600, end: 700, of: { layout: 50 } },
    ];
    expect(drawn([700, 500], tasks)).toEqual([50 - REFERENCE_COSTS.paint, 30]);
  });

  it('is shared alike where nothing was reckoned, and has painting taken off as slow as the browser is', () => {
    const bare = { ...program, parts: [part('shell', { renderMs: 0 }), part('page', { renderMs: 0 })] };
    const tasks = [{ start: 400, end: 480, of: { draw: 20, layout: 60 } }];
    const of = (factor: number) => drawingTimes({ shown: [500, 500], tasks, times: {} }, bare, { chunks: [] }, factor);
    expect(of(1)).toEqual([0, 0].map(() => (80 - REFERENCE_COSTS.paint) / 2));
    expect(of(2)).toEqual([0, 0].map(() => (80 - 2 * REFERENCE_COSTS.paint) / 2));
    expect(of(1000)).toEqual([10, 10]);
  });

  it('takes off what a module ran once, and only after the first paint', () => {
    const graph = { chunks: [{ modules: [3] }] } as never;
    const both = [1, 1].map((resource) => ({ resource, state: 'evaluated' as const }));
    const own = { ...program, resources: program.resources.map((r, i) => (i === 1 ? { ...r, chunk: 0 } : r)) };
    own.parts = [part('shell', { needs: both }), part('page', { needs: both }), part('more', { needs: both })];
    const tasks = [
      { start: 400, end: 450, of: { draw: 50 } },
      { start: 600, end: 650, of: { draw: 50 } },
    ];
    const of = (shown: (number | null)[]) => drawingTimes({ shown, tasks, times: { 3: 30 } }, own, graph, 1);
    expect(of([500, 700, null])).toEqual([50, 50, null]);
    own.parts[0] = part('shell', { needs: [] });
    expect(of([500, 700, 700])).toEqual([50, 10, 10]);
  });

  it('doesn’t hold the running of files that came for a later part', () => {
    const graph = { chunks: [{ modules: [3] }] } as never;
    const own = { ...program, resources: program.resources.map((r, i) => (i === 1 ? { ...r, chunk: 0 } : r)) };
    own.parts = [part('shell'), part('page', { needs: [{ resource: 1, state: 'evaluated' }] })];
    const tasks = [{ start: 600, end: 650, of: { draw: 50 } }];
    expect(drawingTimes({ shown: [500, 700], tasks, times: { 3: 30 } }, own, graph, 1)).toEqual([0, 20]);
  });
});

describe('a landing as the page told it', () => {
  const snapshot = sketch({ 'main.js': {}, 'page.js': {} });
  const raw = (more: Partial<RawLanding> = {}): RawLanding => ({
    document: {
      ...{
        address: 'https://app.test/',
        startTime: 0,
        requestStart: 20,
        responseStart: 90,
        responseEnd: 95,
        transferSize: 900,
      },
      ...{ contentLoaded: 300, load: 320 },
    },
    resources: [],
    ...{ firstContent: 350, largestContent: 360, longTasks: [], clicks: [], times: { 0: 4, 1: 0 } },
    changes: [
      { at: 200, painted: 340 },
      { at: 400, painted: 420 },
    ],
    calls: {},
    ...more,
  });
  const graph = { chunks: [], roots: [] } as never;
  const read = (from: RawLanding, watched: [string, number][] = [], act?: string) =>
    readRun(from, [], {
      ...{ program, graph, snapshot, conditions: ROUND, watched: new Map(watched) },
      ...(act === undefined ? {} : { act }),
    });

  it('waits only for long tasks that were under way when it showed', () => {
    const calls = { 1: [[380, 395, true]] as [number, number, boolean][] };
    const of = (start: number, end: number) =>
      read(raw({ calls, longTasks: [{ start, end }] }), [['page', 1]]).moments.interactive;
    // It shows at 420.
    expect([of(330, 420), of(420, 480), of(421, 480), of(400, 450)]).toEqual([420, 480, 420, 420]);
  });

  it('has requests as they were recorded; what wasn’t told is as soon as it can be', () => {
    const entry = {
      address: '/a.js',
      startTime: 10,
      requestStart: 0,
      responseStart: 0,
      responseEnd: 40,
      transferSize: 7,
    };
    const { requests } = read(raw({ resources: [entry, { ...entry, requestStart: 20, responseStart: 30 }] }));
    expect(requests.slice(1)).toEqual([
      { address: '/a.js', discovered: 10, sent: 10, firstByte: 10, end: 40, bytes: 7 },
      { address: '/a.js', discovered: 10, sent: 20, firstByte: 30, end: 40, bytes: 7 },
    ]);
    expect(requests[0]).toMatchObject({ address: 'https://app.test/', end: 95 });
  });

  it('tells parts late by the first of them where none is the shell', () => {
    const { parts } = readRun(raw(), [], {
      ...{ graph, snapshot, conditions: ROUND, watched: new Map() },
      program: { ...program, parts: [part('a'), part('b', { needs: [{ resource: 1, state: 'evaluated' }] })] },
    });
    expect(parts.map((p) => p.late)).toEqual([false, true]);
  });

  it('has parts come late that need more than the shell', () => {
    const late = (needs: ScreenPart['needs']) =>
      readRun(raw(), [], {
        ...{ graph, snapshot, conditions: ROUND, watched: new Map() },
        program: { ...program, parts: [part('shell'), part('page', { needs })] },
      }).parts.map((p) => p.late);
    expect(late([{ resource: 0, state: 'evaluated' }])).toEqual([false, false]);
    expect(late([1, 0].map((resource) => ({ resource, state: 'evaluated' })))).toEqual([false, true]);
  });

  it('is watched by the modules that draw its parts, and by that of the act', () => {
    const app = sketch(
      { 'main.js': {}, 'layout.js': {}, 'page.js': {}, 'board.js': {}, 'dialog.js': {} },
      {
        routes: [
          route('/', 'page.js', {
            layouts: ['layout.js'],
            parts: [namedPart('board', 'board.js'), namedPart('dialog', 'dialog.js'), namedPart('none', 'gone.js')],
          }),
        ],
      },
    );
    const own = { ...program, parts: [part('shell'), part('page'), part('board'), part('none')] };
    expect([...watchedModules(app, '/', own)]).toEqual([
      ['shell', 1],
      ['page', 2],
      ['board', 3],
    ]);
    expect(watchedModules(app, '/', own, 'dialog').get('dialog')).toBe(4);
  });

  it('shows a part with the first change after it was drawn whole', () => {
    const calls = {
      1: [
        [150, 190, false],
        [380, 395, true],
      ] as [number, number, boolean][],
    };
    const { parts, moments, modules } = read(raw({ calls }), [['page', 1]]);
    expect(parts.map((p) => p.shown)).toEqual([null, 420]);
    expect(moments.interactive).toBe(420);
    expect(modules).toEqual({ 'main.js': 4, 'page.js': 0 });
  });

  it('is interactive once no long task goes on, and not before something shows', () => {
    const calls = { 1: [[100, 110, true]] as [number, number, boolean][] };
    const long = raw({
      calls,
      longTasks: [
        { start: 330, end: 470 },
        { start: 600, end: 900 },
      ],
    });
    expect(read(long, [['page', 1]]).moments.interactive).toBe(470);
    expect(read(raw({ calls }), [['page', 1]]).moments.interactive).toBe(350);
    expect(read(raw({ changes: [], firstContent: null })).moments.interactive).toBeNull();
    expect(read(raw()).moments.interactive).toBe(420);
  });
});

describe('what is predicted beside a rehearsal', () => {
  const app = sketch(
    { 'main.js': { imports: ['page.js'] }, 'page.js': { imports: ['~dialog.js'] }, 'dialog.js': { bytes: 9000 } },
    { routes: [route('/', 'page.js', { parts: [namedPart('dialog', 'dialog.js', { place: 'action' })] })] },
  );
  const of = (act?: string) =>
    predictedOf(app, BASELINE, { pattern: '/', ...(act === undefined ? {} : { act }) }, ROUND);

  it('is the landing, and the wait of who acts once it has come to rest', () => {
    const { reading, timeline } = predict(app, BASELINE, '/', ROUND);
    expect(of()).toEqual({ milestones: reading.milestones, timeline });
    const { wait } = of('dialog');
    const { requests } = timeline;
    expect(wait).toBeGreaterThan(ROUND.link.rttMs);
    expect(requests.some((r) => r.name.includes('dialog'))).toBe(false);
    const slower = { ...ROUND, link: { ...ROUND.link, rttMs: ROUND.link.rttMs + 400 } };
    expect(predictedOf(app, BASELINE, { pattern: '/', act: 'dialog' }, slower).wait! - wait!).toBeCloseTo(400, 0);
  });
});

describe('an act after a landing', () => {
  const snapshot = sketch({ 'main.js': {}, 'dialog.js': {} });
  const raw = (more: Partial<RawLanding>): RawLanding => ({
    document: {
      ...{ address: '/', startTime: 0, requestStart: 1, responseStart: 2, responseEnd: 3, transferSize: 9 },
      ...{ contentLoaded: 4, load: 5 },
    },
    ...{ resources: [], firstContent: 50, largestContent: 60, longTasks: [], clicks: [], times: {}, calls: {} },
    changes: [
      { at: 40, painted: 55 },
      { at: 1180, painted: 1200 },
    ],
    ...more,
  });
  const moments = (more: Partial<RawLanding>) => {
    const watched = new Map([['dialog', 1]]);
    const graph = { chunks: [], roots: [] } as never;
    return readRun(raw(more), [], { program, graph, snapshot, conditions: ROUND, watched, act: 'dialog' }).moments;
  };
  const calls = {
    1: [
      [30, 35, true],
      [1100, 1150, false],
      [1160, 1170, true],
    ] as [number, number, boolean][],
  };

  it('is waited for until what it brings is painted, and is no part of the landing', () => {
    expect(moments({ clicks: [1000], calls, longTasks: [{ start: 1000, end: 1300 }] })).toMatchObject({
      wait: 200,
      interactive: 55,
    });
  });

  it('is answered by what is called with the very click', () => {
    expect(moments({ clicks: [1160], calls }).wait).toBe(40);
  });

  it('that wasn’t done, or brought nothing, has no wait', () => {
    expect(moments({ calls }).wait).toBeNull();
    expect(moments({ clicks: [2000], calls }).wait).toBeNull();
  });

  it('is one quantity more, and only where there was one', () => {
    const of = (more: Partial<Rehearsal>) =>
      quantitiesBeside(
        { milestones, timeline, wait: 150 },
        rehearsal([run({ moments: { ...run().moments, wait: 200 } })], more),
      ).find((q) => q.quantity === 'wait');
    expect(of({ act: 'dialog' })).toMatchObject({ predicted: 150, off: -0.25 });
    expect(of({})).toBeUndefined();
  });
});

describe('what is learnt', () => {
  const snapshot = sketch({ 'main.js': {}, 'page.js': {} });
  const learned = (runs: RehearsedRun[], before = null as Parameters<typeof learnt>[2]) =>
    learnt(snapshot, [rehearsal(runs)], before);

  it('is the mean of the runs, on a machine that isn’t slowed', () => {
    const runs = [run({ modules: { 'main.js': 8 }, slowed: 4 }), run({ modules: { 'main.js': 4 }, slowed: 1 })];
    expect(learned(runs).modules!['main.js'].ms).toBe(3);
  });

  it('is said to come of the last rehearsal that it rests on', () => {
    const at = (when: string, browser: string) =>
      rehearsal([run({ modules: { 'main.js': 2 } })], { at: when, browser });
    const [early, late] = [at('2026-11-28T10:00:00Z', 'Old 1'), at('2026-11-29T10:00:00Z', 'New 2')];
    expect(learnt(snapshot, [early, late], null).by).toBe('New 2, 2026-11-29');
    expect(learnt(snapshot, [late, early], null).by).toBe('New 2, 2026-11-29');
  });

  it('gives modules their share of compiling files, by their size', () => {
    const tasks = [
      { start: 0, end: 30, of: { run: 10, compile: 20 } },
      { start: 40, end: 60, of: { draw: 10, compile: 10 } },
    ];
    const { modules = {} } = learned([run({ modules: { 'main.js': 1, 'page.js': 1 }, tasks })]);
    const [main, other] = snapshot.modules.map((m) => m.bytes.minified);
    expect(modules['main.js'].ms).toBeCloseTo(1 + (20 * main) / (main + other), 1);
  });

  it('keeps what was known of what nobody measured now, and says with what it was measured', () => {
    const before = {
      ...{ by: 'earlier', modules: { 'page.js': { ms: 9, bytes: 1 } }, shellWaits: ['/other', '/'] },
      draws: { '/': { shell: 3 }, '/other': { page: 1 } },
    };
    const parts = [{ part: 'page', shown: 10, drawMs: 7, late: false }];
    const next = learned([run({ modules: { 'main.js': 2 }, parts })], before);
    expect(next).toMatchObject({
      by: 'Chromium 1, 2026-11-29',
      modules: { 'page.js': { ms: 9 }, 'main.js': { ms: 2 } },
      draws: { '/': { shell: 3, page: 7 }, '/other': { page: 1 } },
      shellWaits: ['/other'],
    });
  });

  it('tells of a shell that waits for its page', () => {
    const both = (late: boolean, shell: number) =>
      run({
        parts: [
          { part: 'shell', shown: shell, drawMs: 1, late: false },
          { part: 'page', shown: 700, drawMs: 1, late },
        ],
      });
    expect(learned([both(true, 700), both(true, 700)]).shellWaits).toEqual(['/']);
    expect(learned([both(true, 700), both(true, 400)]).shellWaits).toEqual([]);
    expect(learned([both(false, 700)]).shellWaits).toEqual([]);
  });

  it('is believed of modules that are as large as they were', () => {
    const [main] = snapshot.modules;
    const measured = (bytes: number) => ({ by: '', modules: { 'main.js': { ms: 5, bytes } } });
    const known = (bytes: number) => withMeasured(snapshot, measured(bytes)).modules[0].evaluationMs;
    expect([known(main.bytes.minified), known(main.bytes.minified * 2)]).toEqual([5, undefined]);
  });
});

describe('a rehearsal in a list', () => {
  it('says what was run, under what, and what was seen', () => {
    const made = rehearsal([at(900), at(500), at(700)]);
    const { plan, pattern, address, conditions, at: when } = made;
    expect(summaryOf(made)).toEqual({
      ...{ plan, pattern, address, conditions, at: when, interactive: 700 },
      measured: {
        firstContent: { median: 500, least: 500, most: 500, runs: 3 },
        interactive: { median: 700, least: 500, most: 900, runs: 3 },
      },
    });
    const acted = summaryOf(rehearsal([at(null)], { act: 'dialog' }));
    expect(acted).toMatchObject({ interactive: null, act: 'dialog' });
    expect(acted.measured?.interactive).toBeUndefined();
  });

  it('is found for what it was made from, the newest first', () => {
    const detach: Decision = { kind: 'detach', module: 'a' };
    const kept = (interactive: number, more: object = {}) => ({
      ...{ snapshotId: 's', decisions: [detach], summary: summaryOf(rehearsal([at(interactive)])) },
      ...more,
    });
    const now = { snapshotId: 's', decisions: [detach], pattern: '/', conditions: ROUND };
    const of = (all: Parameters<typeof measuredOf>[0], more: object = {}) =>
      measuredOf(all, { ...now, ...more })?.interactive?.median ?? null;
    expect(of([kept(700), kept(900)])).toBe(700);
    expect(of([kept(700, { snapshotId: 'older' }), kept(900)])).toBe(900);
    expect(of([kept(700)], { decisions: [] })).toBeNull();
    expect(of([kept(700)], { pattern: '/other' })).toBeNull();
    expect(of([kept(700)], { conditions: { ...ROUND, cache: 'returning' } })).toBeNull();
    expect(of([kept(700)], { conditions: { ...ROUND, link: { ...ROUND.link, downKbps: 1 } } })).toBeNull();
    // What conditions are called is no matter.
    expect(of([kept(700)], { conditions: { ...ROUND, link: { ...ROUND.link, name: 'mine' } } })).toBe(700);
    const { measured: _, ...former } = summaryOf(rehearsal([at(5)]));
    expect(of([kept(5, { summary: former }), kept(900)])).toBe(900);
  });
});

describe('a plan and conditions as they were run', () => {
  const plan = { name: 'Lean', description: '', decisions: [{ kind: 'grain' }, { kind: 'floor', bytes: 1 }] } as never;

  it('leave out what only a person can edit in, and say so once for each reason', () => {
    const leftOut = [
      { decision: 0, why: 'by hand (src/a.js:3)' },
      { decision: 1, why: 'by hand (src/b.js:9)' },
    ];
    expect(asRehearsed(plan, { leftOut: leftOut.slice(0, 1) }).decisions).toEqual([{ kind: 'floor', bytes: 1 }]);
    expect(asRehearsed(plan, { leftOut: [] })).toBe(plan);
    const words = leftOutWords(plan, { leftOut });
    expect(words).toEqual([expect.stringMatching(/ and 1 more: by hand$/)]);
    const [one] = leftOutWords(plan, { leftOut: leftOut.slice(0, 1) });
    expect(one).toMatch(/^(?!.* more).*: by hand$/);
    expect(leftOutWords(plan, { leftOut: [{ decision: 7, why: 'it is gone' }] })).toEqual(['a decision: it is gone']);
  });

  it('have the thread as slow as it was', () => {
    const device = { ...ROUND.device, cpuFactor: 4, browserFactor: 4 };
    const as = (slowed: number) => rehearsal([run({ slowed })], { conditions: { ...ROUND, device } });
    expect(conditionsAsRun(as(3)).device).toMatchObject({ cpuFactor: 3, browserFactor: 3 });
    expect(conditionsAsRun(as(4.1)).device).toBe(device);
    expect(conditionsAsRun(as(4.2)).device).toMatchObject({ cpuFactor: 4.2 });
    expect(conditionsAsRun(as(3.8)).device).toMatchObject({ cpuFactor: 3.8 });
    const apart = { ...as(2), conditions: { ...ROUND, device: { ...device, browserFactor: 2 } } };
    expect(conditionsAsRun(apart).device).toMatchObject({ cpuFactor: 2, browserFactor: 1 });
    expect(conditionsAsRun({ ...as(3), runs: [] }).device).toBe(device);
    expect([slowedWords(as(3)), slowedWords(as(4))]).toEqual([', its thread slowed 3.0 times', '']);
  });
});
