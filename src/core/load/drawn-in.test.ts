import fc from 'fast-check';
import { ROUND } from '../../test-support/programs.ts';
import { part, route, type Sketch, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { CALL_BEGINNINGS, type DataCall, type Part, type Route } from '../snapshot/route-types.ts';
import { compileLoad } from './compile.ts';

const IMPORT_DELAY = REFERENCE_COSTS.importDelay;

/** A page that draws a deferred chart, and a frame that draws a deferred menu. */
function load(home: Partial<Route> = {}, more: Record<string, Sketch> = {}, decisions: Decision[] = []) {
  const app = sketch(
    {
      main: { imports: ['frame', 'home'] },
      frame: { imports: ['~menu'] },
      home: { imports: ['~chart', 'list'] },
      list: { imports: ['~row'] },
      chart: { imports: ['~legend'], bytes: 20_000 },
      ...{ row: {}, legend: {}, menu: {} },
      ...more,
    },
    { routes: [route('/', 'home', { layouts: ['frame'], ...home })] },
  );
  const at = (path: string) => app.modules.findIndex((m) => m.path === path);
  app.modules[at('home')].draws = [{ module: at('list'), times: 1 }];
  const program = compileLoad(planned(app, { ...BASELINE, decisions }), '/');
  const timeline = simulate(program, ROUND);
  const request = (name: string) => timeline.requests.find((r) => r.name === name)!;
  const drawn = (name: string) => timeline.tasks.find((t) => t.kind === 'render' && t.name === name)!.end;
  return { program, timeline, request, drawn };
}

describe('a deferred component', () => {
  it('is asked for as what draws it is drawn: by the page, the frame, what these draw, or another part', () => {
    const { request, drawn } = load({ parts: [part('chart', 'chart')] });
    for (const [name, by] of [
      ['menu', 'shell'],
      ['chart', 'home'],
      ['row', 'home'],
      ['legend', 'chart'],
    ])
      expect([name, request(name).discovered]).toEqual([name, expect.closeTo(drawn(by) + IMPORT_DELAY, 6)]);
  });

  it('is asked for by the start’s code where no part is known to draw what names it', () => {
    const loose = { main: { imports: ['frame', 'home', 'loose'] }, loose: { imports: ['~row'] }, list: {} };
    const { request, timeline } = load({}, loose);
    const run = timeline.tasks.find((t) => t.kind === 'evaluate')!.end;
    expect(request('row').discovered).toBeCloseTo(run + IMPORT_DELAY, 6);
  });

  it('that the entry draws around all is asked for with the first that shows, where that comes with the entry', () => {
    const asked = (imports: string[]) => load({}, { main: { imports: [...imports, '~row'] }, list: {} });
    const { request, drawn } = asked(['frame', 'home']);
    expect(request('row').discovered).toBeCloseTo(drawn('shell') + IMPORT_DELAY, 6);
    const deferred = asked(['~frame', '~home']);
    const run = deferred.timeline.tasks.find((t) => t.kind === 'evaluate')!.end;
    expect(deferred.request('row').discovered).toBeCloseTo(run + IMPORT_DELAY, 6);
  });

  it('isn’t asked for by drawing where the document draws what names it', () => {
    const { program } = load({ rendering: 'server' });
    const moments = program.resources.flatMap((r) => r.follow.flatMap((f) => (f.do.kind === 'import' ? [f] : [])));
    expect(moments.filter((f) => f.when === 'eval')).toHaveLength(3);
    // The chart is drawn by script, and its legend with it.
    expect(moments.flatMap((f) => f.target ?? []).map((at) => program.parts[at].name)).toEqual(['chart']);
  });

  it('is asked for before the page where the page gives way to its stand-in', () => {
    const wide: Decision = {
      kind: 'split',
      splitPoint: 'chart',
      fallback: { show: 'stand-in', holdMs: 0, scope: 'app' },
    };
    const { request, drawn, program } = load({ parts: [part('chart', 'chart')] }, {}, [wide]);
    expect(program.parts.find((p) => p.id === 'page')!.standInNeeds).toBeDefined();
    expect(request('chart').discovered).toBeLessThan(drawn('home'));
  });

  it('counts as needed for the start, like what code asks for as it runs', () => {
    const { request } = load({ parts: [part('chart', 'chart')] });
    expect(request('chart').role).toBe('needed');
  });
});

describe('a call for data', () => {
  const call = (id: string, module: string, more: Partial<DataCall> = {}): DataCall => ({
    ...{ id, module, address: `/api/${id}`, bytes: 900, serverMs: 30 },
    ...more,
  });
  const chart = (more: Partial<Part> = {}) => ({ ...part('chart', 'chart'), ...more });

  it('is made as what draws its module is drawn: the page, what that draws, or a part', () => {
    const data = [call('own', 'home'), call('listed', 'list'), call('charted', 'chart')];
    const { request, drawn } = load({ data, parts: [chart()] });
    for (const [id, by] of [
      ['own', 'home'],
      ['listed', 'home'],
      ['charted', 'chart'],
    ])
      expect([id, request(id).discovered]).toEqual([id, expect.closeTo(drawn(by), 6)]);
  });

  it('is made once what draws its module shows, where that is said', () => {
    const { request, timeline, program } = load({
      data: [call('own', 'home', { begins: 'shown' }), call('charted', 'chart', { begins: 'shown' })],
      parts: [chart()],
    });
    for (const [id, by] of [
      ['own', 'page'],
      ['charted', 'chart'],
    ]) {
      const shown = timeline.reveals.find((r) => r.state === 'shown' && program.parts[r.part].id === by)!.at;
      expect([id, request(id).discovered]).toEqual([id, expect.closeTo(shown, 6)]);
    }
  });

  it('is made as its module runs where that is said, or where nothing is known to draw it', () => {
    const data = [call('early', 'home', { begins: 'evaluated' }), call('loose', 'loose')];
    const { request, timeline } = load({ data }, { main: { imports: ['frame', 'home', 'loose'] }, loose: {} });
    const run = timeline.tasks.find((t) => t.kind === 'evaluate')!.end;
    for (const id of ['early', 'loose']) expect(request(id).discovered).toBeCloseTo(run, 6);
  });

  it('comes before what is drawn only with its answer, and before the code of that is asked for', () => {
    const { request, drawn } = load({ data: [call('rows', 'home')], parts: [chart({ drawnAfter: ['rows'] })] });
    const came = request('rows').end;
    expect(request('chart').discovered).toBeGreaterThanOrEqual(came);
    expect(drawn('chart')).toBeGreaterThan(request('chart').end);
    // Whatever else the screen shows doesn't wait.
    expect(drawn('home')).toBeLessThan(came);
  });

  it('of something that waits for another answer comes after that', () => {
    const data = [call('who', 'home'), call('theirs', 'list')];
    const { request } = load({ data, parts: [{ ...part('list', 'list'), drawnAfter: ['who'] }] });
    expect(request('theirs').discovered).toBeGreaterThan(request('who').end);
  });

  it('comes before the page where the router waits for it', () => {
    const { request, drawn } = load({
      data: [call('page data', 'home', { begins: 'evaluated' })],
      pageAfter: ['page data'],
    });
    expect(drawn('home')).toBeGreaterThan(request('page data').end);
    expect(drawn('shell')).toBeLessThan(request('page data').end);
  });

  it('is never waited for by what makes it, however parts and calls hang together', () => {
    const modules = ['home', 'list', 'chart', 'row', 'legend', 'menu'];
    const ids = ['a', 'b', 'c'];
    const some = fc.subarray(ids);
    fc.assert(
      fc.property(
        fc.tuple(
          ...ids.map(() => fc.tuple(fc.constantFrom(...modules), fc.constantFrom(undefined, ...CALL_BEGINNINGS))),
        ),
        fc.tuple(some, some, some, some),
        some,
        (makers, [ofChart, ofRow, ofLegend, ofList], pageAfter) => {
          const data = ids.map((id, i) => call(id, makers[i][0], { begins: makers[i][1] }));
          const parts = [
            chart({ drawnAfter: ofChart }),
            { ...part('row', 'row'), drawnAfter: ofRow },
            { ...part('legend', 'legend'), drawnAfter: ofLegend },
            { ...part('list', 'list'), drawnAfter: ofList },
          ];
          const { timeline, program } = load({ data, parts, pageAfter });
          const asked = new Set(timeline.requests.map((r) => r.name));
          for (const name of [...ids, 'chart', 'row', 'legend', 'menu']) expect(asked).toContain(name);
          const shown = new Set(timeline.reveals.filter((r) => r.state === 'shown').map((r) => r.part));
          expect(shown.size).toBe(program.parts.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('an image that a component draws', () => {
  it('is asked for as that is drawn', () => {
    const pic = {
      ...{ id: 'pic', kind: 'image' as const, address: '/pic.avif', bytes: 9000, serverMs: 20, lazy: false },
      ...{ place: 'first screen' as const, foundIn: { module: 'list' } },
    };
    const { timeline, drawn } = load({ content: [pic] });
    expect(timeline.requests.find((r) => r.type === 'image')!.discovered).toBeCloseTo(drawn('home'), 6);
  });
});
