import fc from 'fast-check';
import { FULL_PLANS, fullApp } from '../../test-support/full-app.ts';
import { anyConditions, anyLivedApp, anyPicks, planBy } from '../../test-support/plans.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { shipped } from '../ship/shipped.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { drawVisit } from '../visitors/draw.ts';
import { modelOf } from '../visitors/model.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import { Compilations } from './compiled.ts';
import { landingCost, Scorer } from './score.ts';
import type { RouteScore } from './types.ts';

it('counts code that comes after first paint and is shown as no waste', () => {
  const hero = sketch(
    {
      main: { imports: ['home'] },
      home: { imports: ['~hero', '~help'] },
      hero: { bytes: 30_000 },
      help: { bytes: 30_000 },
    },
    {
      routes: [
        route('/', 'home', { parts: [part('hero', 'hero'), part('help', 'help', { place: 'action', share: 0.25 })] }),
      ],
    },
  );
  const waste = (splitPoint: string) =>
    new Scorer(hero, modelOf(hero).model, DEFAULT_CONDITIONS).score({
      ...BASELINE,
      decisions: [{ kind: 'trigger', splitPoint, fetch: { on: 'after first paint' } }],
    }).waste;
  expect(waste('hero')).toBe(0);
  // What a quarter of the people use is wasted on the others.
  expect(waste('help')).toBeGreaterThan(5000);
});

it('counts interactive twice beside first content and first screen, and a minute for what never comes', () => {
  const times = { firstContent: 100, firstScreenComplete: 200, interactive: 400 } as RouteScore;
  expect(landingCost(times)).toBe((100 + 200 + 400 + 400) / 4);
  expect(landingCost({ ...times, interactive: Number.NaN })).toBe((100 + 200 + 60_000 + 60_000) / 4);
});

it('takes over what another scorer worked out, and compiles each landing of a plan once', () => {
  const app = fullApp();
  const { model } = modelOf(app);
  const score = new Scorer(app, model, DEFAULT_CONDITIONS).score(BASELINE);
  const scorer = new Scorer(app, model, DEFAULT_CONDITIONS);
  scorer.learn(BASELINE, score);
  expect(scorer.score(BASELINE)).toBe(score);
  const [pattern] = score.routes.map((r) => r.pattern);
  const compilations = new Compilations(app, model);
  const { landing } = compilations.of(BASELINE);
  expect(landing(pattern)).toBe(landing(pattern));
  expect(compilations.of(BASELINE).landing).toBe(landing);
});

describe('a scorer that is asked of one plan after another', () => {
  it('says the same as one that is asked for the first time, for decisions of every kind', () => {
    fc.assert(
      fc.property(
        anyLivedApp(10),
        anyConditions,
        fc.array(anyPicks, { minLength: 2, maxLength: 5 }),
        (snapshot, conditions, all) => {
          const { model } = modelOf(snapshot);
          const shared = new Scorer(snapshot, model, conditions);
          for (const numbers of all) {
            const plan = planBy(snapshot, numbers, 3);
            expect(shared.score(plan)).toEqual(new Scorer(snapshot, model, conditions).score(plan));
          }
        },
      ),
      { numRuns: 60, endOnFailure: true },
    );
  });

  it('says of every landing what its prediction says', () => {
    fc.assert(
      fc.property(anyLivedApp(10), anyConditions, anyPicks, (snapshot, conditions, numbers) => {
        const plan = planBy(snapshot, numbers);
        const { routes } = new Scorer(snapshot, modelOf(snapshot).model, conditions).score(plan);
        for (const { pattern, share: _, wasted: __, ...figures } of routes) {
          const { milestones, readout } = predict(shipped(snapshot, plan).snapshot, plan, pattern, conditions).reading;
          expect({ ...milestones, ...readout }).toMatchObject(figures);
        }
      }),
      { numRuns: 60, endOnFailure: true },
    );
  });
});

it('counts modules that travel in a needed file and aren’t needed as waste, as far as nobody needs them next', () => {
  const app = sketch(
    {
      main: { imports: ['~one', '~two'] },
      one: { imports: ['a'] },
      two: { imports: ['b'] },
      a: { package: 'a', bytes: 30_000 },
      b: { package: 'b', bytes: 60_000 },
    },
    {
      routes: [route('/one', 'one', { landings: 1 }), route('/two', 'two', { landings: 1 })],
      visitors: {
        routes: [
          { pattern: '/one', moves: [{ to: '/two', share: 0.25 }] },
          { pattern: '/two', moves: [] },
        ],
      },
    },
  );
  const scorer = new Scorer(app, modelOf(app).model, DEFAULT_CONDITIONS);
  const wasted = (decisions: Plan['decisions']) =>
    Object.fromEntries(scorer.score({ ...BASELINE, decisions }).routes.map((r) => [r.pattern, r.wasted]));
  expect(wasted([])).toEqual({ '/one': 0, '/two': 0 });
  const both = wasted([{ kind: 'together', modules: ['a', 'b'] }]);
  // A quarter of those on /one go on to where b is needed; from /two nobody goes to /one.
  expect(both['/one']).toBeCloseTo(0.75 * 20_000, 5);
  expect(both['/two']).toBeCloseTo(10_000, 5);
});

it('says of waits what they come to over whole visits, as these are drawn', () => {
  const app = fullApp();
  const { model } = modelOf(app);
  const scorer = new Scorer(app, model, DEFAULT_CONDITIONS);
  const [splits] = FULL_PLANS;
  const waited = (plan: Plan) => scorer.score(plan).waits.reduce((sum, w) => sum + w.first * w.wait, 0);
  const visits = 400;
  const played = (plan: Plan) => {
    const compiler = new VisitCompiler(planned(shipped(app, plan).snapshot, plan));
    return Array.from({ length: visits }, (_, n) => {
      const { visit } = drawVisit(model, compiler, 3, n);
      const [, ...waits] = playVisit(compiler, visit, DEFAULT_CONDITIONS).experiences;
      // What never comes counts as the scorer counts it.
      return waits.reduce((sum, w) => sum + Math.min(60_000, (w.wait + Math.max(w.wait, w.complete)) / 2), 0);
    });
  };
  const before = played(BASELINE);
  const changes = played(splits).map((ms, n) => ms - before[n]);
  const mean = changes.reduce((sum, ms) => sum + ms, 0) / visits;
  const error = Math.sqrt(changes.reduce((sum, ms) => sum + (ms - mean) ** 2, 0)) / visits;
  const claimed = waited(splits) - waited(BASELINE);
  expect(Math.abs(claimed)).toBeGreaterThan(20);
  expect(Math.abs(claimed - mean)).toBeLessThan(0.25 * Math.abs(mean) + 2 * error);
});
