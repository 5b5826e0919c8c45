import { ROUND } from '../../test-support/programs.ts';
import { milestones, part, program, rehearsal, run, timeline } from '../../test-support/rehearsals.ts';
import { part as namedPart, route, sketch } from '../../test-support/snapshots.ts';
import type { ScreenPart } from '../load/types.ts';
import { quantitiesBeside } from './quantities.ts';
import type { RawLanding } from './raw.ts';
import { readRun, watchedModules } from './read-run.ts';
import type { Rehearsal } from './types.ts';

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
    ...{ firstContent: 350, largestContent: 360, longTasks: [], firstAct: null, acts: [], times: { 0: 4, 1: 0 } },
    changes: [
      { at: 200, painted: 340 },
      { at: 400, painted: 420 },
    ],
    calls: {},
    ...more,
  });
  const graph = { chunks: [], roots: [] } as never;
  const read = (from: RawLanding, watched: [string, number][] = []) =>
    readRun(from, [], { program, graph, snapshot, conditions: ROUND, watched: new Map(watched), acted: [] });

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
    const late = { ...entry, startTime: 55 };
    const { requests } = read(raw({ resources: [entry, { ...entry, requestStart: 20, responseStart: 30 }, late] }));
    expect(requests.slice(1)).toEqual([
      { address: '/a.js', discovered: 10, sent: 10, firstByte: 10, end: 40, bytes: 7 },
      { address: '/a.js', discovered: 10, sent: 20, firstByte: 30, end: 40, bytes: 7 },
      // A worker's script, whose start the browser tells wrongly.
      { address: '/a.js', discovered: 40, sent: 40, firstByte: 40, end: 40, bytes: 7 },
    ]);
    expect(requests[0]).toMatchObject({ address: 'https://app.test/', end: 95 });
  });

  it('tells parts late by the first of them where none is the shell', () => {
    const { parts } = readRun(raw(), [], {
      ...{ graph, snapshot, conditions: ROUND, watched: new Map(), acted: [] },
      program: { ...program, parts: [part('a'), part('b', { needs: [{ resource: 1, state: 'evaluated' }] })] },
    });
    expect(parts.map((p) => p.late)).toEqual([false, true]);
  });

  it('has parts come late that need more than the shell', () => {
    const late = (needs: ScreenPart['needs']) =>
      readRun(raw(), [], {
        ...{ graph, snapshot, conditions: ROUND, watched: new Map(), acted: [] },
        program: { ...program, parts: [part('shell'), part('page', { needs })] },
      }).parts.map((p) => p.late);
    expect(late([{ resource: 0, state: 'evaluated' }])).toEqual([false, false]);
    expect(late([1, 0].map((resource) => ({ resource, state: 'evaluated' })))).toEqual([false, true]);
  });

  it('is watched by the modules that draw its parts', () => {
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

describe('acts after a landing', () => {
  const snapshot = sketch({ 'main.js': {}, 'dialog.js': {} });
  const raw = (more: Partial<RawLanding>): RawLanding => ({
    document: {
      ...{ address: '/', startTime: 0, requestStart: 1, responseStart: 2, responseEnd: 3, transferSize: 9 },
      ...{ contentLoaded: 4, load: 5 },
    },
    ...{ resources: [], firstContent: 50, largestContent: 60, longTasks: [], acts: [], times: {}, calls: {} },
    firstAct: more.acts?.find((at) => at !== null) ?? null,
    changes: [
      { at: 40, painted: 55 },
      { at: 1180, painted: 1200 },
    ],
    ...more,
  });
  const moments = (more: Partial<RawLanding>) => {
    const [watched, graph] = [new Map(), { chunks: [], roots: [] } as never];
    const acted = (more.acts ?? [null]).map(() => 1);
    return readRun(raw(more), [], { program, graph, snapshot, conditions: ROUND, watched, acted }).moments;
  };
  const calls = {
    1: [
      [30, 35, true],
      [1100, 1150, false],
      [1160, 1170, true],
    ] as [number, number, boolean][],
  };

  it('are waited for until what they bring is painted, and are no part of the landing', () => {
    expect(moments({ acts: [1000], calls, longTasks: [{ start: 1000, end: 1300 }] })).toMatchObject({
      waits: [200],
      interactive: 55,
    });
  });

  it('are answered by what is called with the very click', () => {
    expect(moments({ acts: [1160], calls }).waits).toEqual([40]);
  });

  it('don’t show parts of the landing, which may be drawn by them for the first time', () => {
    const read = readRun(raw({ acts: [1000], calls }), [], {
      ...{ graph: { chunks: [], roots: [] } as never, snapshot, conditions: ROUND, acted: [1] },
      ...{ program: { ...program, parts: [part('late')] }, watched: new Map([['late', 1]]) },
    });
    expect(read.parts[0].shown).toBe(55);
    const only = { 1: calls[1].slice(1) };
    const later = readRun(raw({ acts: [1000], calls: only }), [], {
      ...{ graph: { chunks: [], roots: [] } as never, snapshot, conditions: ROUND, acted: [1] },
      ...{ program: { ...program, parts: [part('late')] }, watched: new Map([['late', 1]]) },
    });
    expect(later.parts[0].shown).toBeNull();
    expect(later.moments).toMatchObject({ interactive: 55, waits: [200] });
  });

  it('that weren’t done, or brought nothing, have no wait', () => {
    expect(moments({ calls }).waits).toEqual([null]);
    expect(moments({ acts: [2000], calls }).waits).toEqual([null]);
    expect(moments({ acts: [null, 1100], calls })).toMatchObject({ waits: [null, 100], interactive: 55 });
  });

  it('end the landing though they brought nothing', () => {
    const tried = { acts: [null], firstAct: 50, calls, longTasks: [] };
    expect(moments(tried)).toMatchObject({ waits: [null], interactive: 55 });
    expect(moments({ ...tried, firstAct: 30 }).interactive).toBe(50);
  });

  it('are answered before the next one, or not at all', () => {
    expect(moments({ acts: [1000, 1155], calls }).waits).toEqual([null, 45]);
    expect(moments({ acts: [1000, 1190], calls }).waits).toEqual([200, null]);
  });

  it('are one quantity more for each, and only where there were any', () => {
    const of = (more: Partial<Rehearsal>) =>
      quantitiesBeside(
        { milestones, timeline, waits: [150, 30] },
        rehearsal([run({ moments: { ...run().moments, waits: [200, 0] } })], more),
      ).filter((q) => q.quantity === 'wait');
    expect(of({ acts: ['dialog', '/far'] })).toMatchObject([
      { act: 0, name: 'Wait for dialog', predicted: 150, off: -0.25 },
      { act: 1, name: 'Wait for /far', predicted: 30, off: null },
    ]);
    expect(of({})).toEqual([]);
  });
});
