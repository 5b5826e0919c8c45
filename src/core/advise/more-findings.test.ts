import { part, route, type Sketch, sketch } from '../../test-support/snapshots.ts';
import { decisionWords, planWith } from '../plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS, LINKS } from '../sim/conditions.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { finish } from '../steps.ts';
import { modelOf } from '../visitors/model.ts';
import type { FindingKind } from '../vocabulary/findings.ts';
import { advise, candidatesOf } from './advise.ts';
import { AnalysisContext } from './detect/analysis-context.ts';
import { Scorer } from './score.ts';
import type { Advice, Finding } from './types.ts';

function adviceFor(app: Snapshot, decisions: Decision[] = []): { advice: Advice; plan: Plan } {
  const plan = { ...BASELINE, decisions };
  return { advice: finish(advise(app, plan, modelOf(app).model, DEFAULT_CONDITIONS)), plan };
}

function only(app: Snapshot, kind: FindingKind, decisions: Decision[] = []): Finding[] {
  return adviceFor(app, decisions).advice.findings.filter((f) => f.kind === kind);
}

const app = (modules: Record<string, Sketch>, routes: Route[], more: Partial<Snapshot> = {}): Snapshot =>
  sketch(modules, { routes, ...more });

describe('splits three deep', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['~home'] },
    home: { imports: ['~panel'] },
    panel: { imports: ['~chart'], bytes: 3000 },
    chart: { imports: ['~legend'], bytes: 3000 },
    legend: { bytes: 3000 },
  };
  const parts = [part('panel', 'panel'), part('chart', 'chart'), part('legend', 'legend')];

  it('are found with what leads down to them, and joining them helps', () => {
    const snapshot = app(modules, [route('/', 'home', { parts })]);
    const found = only(snapshot, 'nested splits');
    // Whatever takes the same stairs away may be the better advice; the candidate itself is measured either way.
    const tried = [...found.map((f) => f.what), ...adviceFor(snapshot).advice.noGain.map((n) => n.what)];
    expect(tried.join()).toContain('legend stands 3 splits deep');
    for (const f of found) expect(f.effect.cost).toBeLessThan(0);
    const candidates = candidatesOf(new AnalysisContext(snapshot, BASELINE, DEFAULT_CONDITIONS));
    const [nested] = candidates.filter((c) => c.kind === 'nested splits');
    expect(nested.why).toContain('panel, then chart, then legend:');
    expect(nested.remedies.map((r) => [r.words, r.decisions.map(decisionWords)])).toEqual([
      ['join legend to chart', ['join legend from chart']],
      ['join all of it to panel', ['join chart from panel', 'join legend from chart']],
    ]);
  });

  it('are told with the link on which they hurt, where the present one hides it', () => {
    const rare = [part('panel', 'panel', { place: 'action', action: 'open', share: 0.008 })];
    const snapshot = app(modules, [route('/', 'home', { parts: rare })]);
    const quick = { ...DEFAULT_CONDITIONS, link: { ...LINKS[0], rttMs: 1, downKbps: 200_000, dnsMs: 0 } };
    const { findings } = finish(advise(snapshot, BASELINE, modelOf(snapshot).model, quick));
    const hidden = findings.filter(
      (f) => f.kind === 'nested splits' && /hides it; on .+ a visit would save \d+ ms/.test(f.why),
    );
    expect(hidden.map((f) => f.remedy.decisions[0].kind)).toEqual(['join']);
  });

  it('are none where something else asks for them sooner', () => {
    const sooner = { ...modules, home: { imports: ['~panel', '~legend'] } };
    const snapshot = app(sooner, [route('/', 'home', { parts })]);
    const { advice } = adviceFor(snapshot);
    const all = [...advice.findings, ...advice.noGain].map((f) => f.kind);
    expect(all).not.toContain('nested splits');
  });
});

it('is two findings where two routes bring one package by imports of their own', () => {
  const made = app(
    {
      main: { imports: ['~one', '~two'] },
      one: { imports: ['sheets'], bytes: 4000 },
      two: { imports: ['sheets'], bytes: 4000 },
      sheets: { bytes: 150_000, package: 'sheets' },
    },
    [route('/one', 'one'), route('/two', 'two')],
  );
  const imports = made.imports.map((i) => (made.modules[i.to].path === 'sheets' ? { ...i, onActs: true as const } : i));
  const found = only({ ...made, imports }, 'only on acts');
  expect(found.map((f) => [f.id, f.routes, f.evidence[0].from]).sort()).toEqual([
    ['acts sheets in one', ['/one'], 'one'],
    ['acts sheets in two', ['/two'], 'two'],
  ]);
});

describe('a package in two versions', () => {
  const lib = { package: 'dates', bytes: 60_000 };
  const snapshot = app(
    {
      main: { imports: ['home', 'a/dates/index'] },
      home: { imports: ['b/dates/index'] },
      'a/dates/index': lib,
      'b/dates/index': lib,
    },
    [route('/', 'home')],
    { packages: ['a/dates', 'b/dates'].map((folder, i) => ({ name: 'dates', version: `${i}.1.0`, folder })) },
  );

  it('is found once, and one of them is as good as both', () => {
    const [found, ...others] = only(snapshot, 'two versions');
    expect(others).toEqual([]);
    expect(found.effect.routes[0].startBytes).toBeLessThan(-10_000);
    const [decision] = found.remedy.decisions;
    // The app's own code asks for the newer one too.
    expect(decision).toMatchObject({ keep: 'b/dates' });
    expect(found.evidence.map((e) => e.from)).toEqual(['main', 'home']);
    expect(only(snapshot, 'two versions', [decision])).toEqual([]);
  });
});

describe('what deploys make people fetch again', () => {
  const lib = { package: 'engine', bytes: 300_000 };
  const modules: Record<string, Sketch> = {
    main: { imports: ['home', 'engine'], bytes: 20_000 },
    home: {},
    engine: lib,
  };
  const routes = [route('/', 'home')];
  const returning = { visitors: { returning: 0.6, deployed: 0.9 } };

  it('is advice where people return after deploys, measured for them', () => {
    const snapshot = app(modules, routes, returning);
    const [found] = only(snapshot, 'mixed by deploys');
    expect(found.whose).toBe('returning after a deploy');
    expect(found.effect.routes[0].interactive).toBeLessThan(-100);
    const { model } = modelOf(snapshot);
    const under = { ...DEFAULT_CONDITIONS, cache: 'deployed' as const };
    const scorer = new Scorer(snapshot, model, under);
    const change = scorer.score(planWith(BASELINE, found.remedy)).cost - scorer.score(BASELINE).cost;
    expect(found.effect.cost).toBeLessThan(0.54 * change + 50);
  });

  it('is none where nobody returns, or the package has a file of its own', () => {
    expect(only(app(modules, routes), 'mixed by deploys')).toEqual([]);
    const apart: Decision = { kind: 'apart', match: { package: 'engine' } };
    expect(only(app(modules, routes, returning), 'mixed by deploys', [apart])).toEqual([]);
  });
});

describe('what people see go wrong', () => {
  const modules: Record<string, Sketch> = { main: { imports: ['home'] }, home: { imports: ['~dialog'] }, dialog: {} };
  const routes = [route('/', 'home', { parts: [part('dialog', 'dialog', { place: 'action', share: 0.5 })] })];
  const snapshot = app(modules, routes);

  it('is a part that says nothing if its code can’t be loaded, until the plan says what shows', () => {
    const [found] = only(snapshot, 'fails silently');
    expect(found.effect.seen.silent).toBeCloseTo(-0.5, 6);
    expect(found.remedy.decisions).toEqual([{ kind: 'split', splitPoint: 'dialog', onError: 'a way to try again' }]);
    expect(only(snapshot, 'fails silently', found.remedy.decisions)).toEqual([]);
  });

  it('is a stand-in that flashes, or a part that moves the rest', () => {
    const nothing: Decision = { kind: 'split', splitPoint: 'hero', fallback: { show: 'nothing', holdMs: 0 } };
    const late = app({ main: { imports: ['~home'] }, home: { imports: ['~hero'] }, hero: { bytes: 50_000 } }, [
      route('/', 'home', { parts: [part('hero', 'hero')] }),
    ]);
    const moves = adviceFor(late, [nothing]).advice.findings.find((f) => f.kind === 'unsteady screen');
    expect(moves?.what).toContain('moves what stands around it');
    expect(moves?.effect.seen.moves).toBe(-1);
  });
});

describe('hints that are there already', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['home'], bytes: 30_000 },
    home: { imports: ['~gallery'] },
    gallery: { bytes: 200_000 },
  };
  const parts = [part('gallery', 'gallery', { place: 'action', share: 0.02 })];
  const evidence = { path: 'index.html', line: 4 };
  const link = { realm: 'site', rel: 'preload' as const, address: '/film.mp4', as: 'fetch', crossorigin: true };
  const snapshot = app(modules, [route('/', 'home', { parts })], {
    links: [{ ...link, priority: 'auto', bytes: 400_000, evidence }],
    visitors: { dataSaver: 0.3 },
  });

  it('in a document: one that only stands in the way is found with its line, and left out by the plan', () => {
    const realm = snapshot.entries[0].realm;
    const own = { ...snapshot, links: snapshot.links.map((l) => ({ ...l, realm })) };
    const [found] = only(own, 'hint that costs');
    expect(found.evidence).toEqual([{ from: 'index.html', to: '/film.mp4', line: 4 }]);
    expect(found.effect.waste).toBeLessThan(-300_000);
    expect(only(own, 'hint that costs', found.remedy.decisions)).toEqual([]);
  });

  it('in the plan: one that fetches in case is kept from people who save data', () => {
    const target = { kind: 'split point' as const, module: 'gallery' };
    const hint = { kind: 'prefetch' as const, place: 'markup' as const, target, routes: ['/'] };
    const found = only({ ...snapshot, links: [] }, 'hint that costs', [{ kind: 'hint', hint }]);
    const savers = found.find((f) => f.whose === 'data savers');
    expect(savers?.remedy.decisions).toEqual([{ kind: 'hint', hint: { ...hint, notForDataSaver: true } }]);
  });
});

describe('facts', () => {
  it('are decisions that no longer match, and output that isn’t fit to ship', () => {
    const notices = [
      { kind: 'development' as const, path: 'app.js', message: 'looks like a development build' },
      { kind: 'unminified' as const, path: 'a.js', message: 'long names' },
      { kind: 'unminified' as const, path: 'b.js', message: 'long names' },
    ];
    const snapshot = app({ main: { imports: ['home'] }, home: {} }, [route('/', 'home')], { notices });
    const { facts } = adviceFor(snapshot, [{ kind: 'detach', import: 'main::gone' }]).advice;
    expect(facts.map((f) => f.what)).toEqual([
      '“detach gone from main” no longer matches the code',
      'app.js is a development build',
      'a.js and 1 more is not minified',
    ]);
    expect(facts[0].withdraw).toEqual(['import main::gone']);
  });
});

describe('decisions of the plan', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['home', 'a', 'b'], bytes: 20_000 },
    home: { imports: ['~panel'] },
    a: { bytes: 1000 },
    b: { bytes: 1000 },
    panel: { bytes: 30_000 },
  };
  const parts = [part('panel', 'panel')];
  const snapshot = app(modules, [route('/', 'home', { parts })]);

  it('that cost more than they give are told, with what always travels together', () => {
    const decisions: Decision[] = [
      { kind: 'apart', match: { path: 'a' } },
      { kind: 'trigger', splitPoint: 'panel', fetch: { on: 'after', ms: 4000 } },
    ];
    const { advice, plan } = adviceFor(snapshot, decisions);
    const own = advice.findings.filter((f) => f.kind === 'decision that costs');
    expect(own.map((f) => f.what)).toEqual(['“fetch panel after 4000 ms” doesn’t pay', '“keep a apart” doesn’t pay']);
    expect(own[1].why).toMatch(/^entry 2 and entry always travel together/);
    const after = own.reduce((p, f) => planWith(p, f.remedy), plan);
    expect(after.decisions).toEqual([]);
    const scorer = new Scorer(snapshot, modelOf(snapshot).model, DEFAULT_CONDITIONS);
    expect(scorer.score(after).cost).toBeLessThan(scorer.score(plan).cost);
  });

  it('that pay are not', () => {
    const decisions: Decision[] = [{ kind: 'trigger', splitPoint: 'panel', fetch: { on: 'at once' } }];
    const { advice } = adviceFor(snapshot, decisions);
    expect(advice.findings.map((f) => f.kind)).not.toContain('decision that costs');
    expect(advice.noGain.map((n) => n.kind)).toContain('decision that costs');
  });
});
