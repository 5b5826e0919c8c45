import { fullApp } from '../../test-support/full-app.ts';
import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import type { VisitorNotes } from '../snapshot/visitor-types.ts';
import { VisitCompiler } from '../visits/program.ts';
import { drawVisit } from './draw.ts';
import { modelOf } from './model.ts';
import { expectedWait, waitAfter, waitCurve, wishesOf } from './reckon.ts';

const visitors: VisitorNotes = {
  hesitation: { medianMs: 100, spread: 0.7 },
  routes: [
    { pattern: '/', moves: [{ to: '/shop', share: 0.5 }] },
    { pattern: '/shop', moves: [{ to: '/', share: 0.2 }] },
  ],
};
const snapshot = sketch(
  {
    main: { imports: ['home', '~shop'] },
    home: { imports: ['~dialog'] },
    dialog: { bytes: 42_000 },
    shop: { bytes: 9000 },
  },
  {
    routes: [
      route('/', 'home', { landings: 3, parts: [part('dialog', 'dialog', { place: 'action', share: 0.4 })] }),
      route('/shop', 'shop', { landings: 1 }),
    ],
    visitors,
  },
);
const { model } = modelOf(snapshot);
const plan = (...decisions: Decision[]) => ({ ...BASELINE, decisions });
const approach: Decision = { kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'approach' } };

it('counts stays, moves and acts as many drawn visits do', () => {
  const { wishes } = wishesOf(model);
  const counted = new Map<string, number>();
  const visits = 20_000;
  for (let n = 0; n < visits; n++) {
    const { visit } = drawVisit(model, { staysInside: () => true, hasMoment: () => true }, 5, n);
    let at = visit.landing;
    for (const step of visit.steps) {
      const key = step.does === 'move' ? `${at} → ${step.to}` : `${at} · ${'part' in step ? step.part : ''}`;
      if (step.does === 'move') at = step.to;
      counted.set(key, (counted.get(key) ?? 0) + 1);
    }
  }
  for (const { key, perVisit } of wishes) expect((counted.get(key) ?? 0) / visits).toBeCloseTo(perVisit, 1.7);
  // By hand: stays on / are 0.75 + 0.2 · stays on /shop, and those 0.25 + 0.5 · stays on /.
  const home = (0.75 + 0.2 * 0.25) / (1 - 0.2 * 0.5);
  expect(wishes.find((w) => w.key === '/ · dialog')?.perVisit).toBeCloseTo(0.4 * home, 5);
});

it.each([
  ['two routes', model],
  ['an app with parts on several routes', modelOf(fullApp()).model],
])('counts what is the first of its kind as many drawn visits do: %s', (_, visited) => {
  const { wishes } = wishesOf(visited);
  const moduleOf = new Map(visited.routes.flatMap((r) => r.acts.map((a) => [`${r.pattern} ${a.part}`, a.module])));
  const counted = new Map<string, number>();
  const visits = 20_000;
  for (let n = 0; n < visits; n++) {
    const { visit } = drawVisit(visited, { staysInside: () => true, hasMoment: () => true }, 7, n);
    let at = visit.landing;
    const known = new Set([at]);
    for (const step of visit.steps) {
      const isMove = step.does === 'move';
      const part = 'part' in step ? (step.part ?? '') : '';
      const wanted = isMove ? step.to : moduleOf.get(`${at} ${part}`)!;
      const key = isMove ? `${at} → ${wanted}` : `${at} · ${part}`;
      if (!known.has(wanted)) counted.set(key, (counted.get(key) ?? 0) + 1);
      known.add(wanted);
      if (isMove) at = step.to;
    }
  }
  expect(wishes.length).toBeGreaterThan(2);
  for (const { key, first, perVisit } of wishes) {
    expect(first).toBeLessThanOrEqual(perVisit + 1e-9);
    // Four standard errors of so many draws.
    expect(Math.abs((counted.get(key) ?? 0) / visits - first)).toBeLessThan(4 * Math.sqrt(0.25 / visits));
  }
});

describe('the wait by the lead', () => {
  const [habits] = model.routes;
  const wish = wishesOf(model).wishes.find((w) => w.key === '/ · dialog')!;

  it('falls as the lead grows, down to nothing, where the approach fetches', () => {
    const curve = waitCurve(new VisitCompiler(planned(snapshot, plan(approach))), habits, wish, ROUND)!;
    const full = waitAfter(curve, 0);
    expect(full).toBeGreaterThan(100);
    expect(waitAfter(curve, full / 2)).toBeCloseTo(full / 2, 0);
    expect(waitAfter(curve, 10_000)).toBeLessThan(25);
  });

  it('is one figure where nothing is fetched on the approach, or nothing announces an act', () => {
    const level = waitCurve(new VisitCompiler(planned(snapshot, plan())), habits, wish, ROUND)!;
    expect(level.leads).toEqual([0]);
    const touched = { ...ROUND, device: { ...ROUND.device, touch: true } };
    expect(waitCurve(new VisitCompiler(planned(snapshot, plan(approach))), habits, wish, touched)?.leads).toEqual([0]);
  });
});

describe('the expected wait', () => {
  /** max(0, 200 − lead), straight between the points. */
  const curve = { leads: [0, 200], waits: [200, 0] };

  it('agrees with the closed form for a lead that is spread log-normally', () => {
    // E max(0, k − H) = k Φ((ln k − µ)/σ) − e^(µ + σ²/2) Φ((ln k − µ − σ²)/σ); values of Φ from tables.
    const [mean, sigma, k] = [Math.log(100), 0.5, 200];
    const one = (Math.log(k) - mean) / sigma;
    expect(one).toBeCloseTo(1.3863, 4);
    const byHand = k * 0.91717 - 100 * Math.exp(sigma ** 2 / 2) * 0.81227;
    expect(expectedWait(curve, { medianMs: 100, spread: 0.5 }, 0)).toBeCloseTo(byHand, 0);
  });

  it('is the whole wait for people who touch, and in proportion for a share of them', () => {
    const hesitation = { medianMs: 100, spread: 0 };
    expect(expectedWait(curve, hesitation, 1)).toBe(200);
    expect(expectedWait(curve, hesitation, 0)).toBeCloseTo(100, 9);
    expect(expectedWait(curve, hesitation, 0.25)).toBeCloseTo(125, 9);
  });
});
