import { ROUND } from '../../test-support/programs.ts';
import { part, route, type Sketch, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Route } from '../snapshot/route-types.ts';
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
    const { request, timeline } = load({}, { main: { imports: ['frame', 'home', '~row'] }, list: {} });
    const run = timeline.tasks.find((t) => t.kind === 'evaluate')!.end;
    expect(request('row').discovered).toBeCloseTo(run + IMPORT_DELAY, 6);
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
