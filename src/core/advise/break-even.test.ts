import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planWith } from '../plan/decisions.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { modelOf } from '../visitors/model.ts';
import type { Hint } from '../vocabulary/hints.ts';
import { type BreakEvenOver, breakEven } from './break-even.ts';
import { Scorer } from './score.ts';
import type { Remedy } from './types.ts';

const app = sketch(
  { main: { imports: ['home'] }, home: { imports: ['dialog'] }, dialog: { bytes: 200_000 }, other: {} },
  { routes: [route('/', 'home', { parts: [part('dialog', 'dialog', { place: 'action', share: 0.1 })] })] },
);
const { model } = modelOf(app);
const detach: Remedy = { words: 'detach', decisions: [{ kind: 'detach', module: 'dialog' }] };
const over = (what: BreakEvenOver, remedy = detach) =>
  breakEven(app, BASELINE, remedy, model, DEFAULT_CONDITIONS, what)!;

it('of a split over the share of use: it pays while few use it, and ceases where the waits outweigh the start', () => {
  const { points, crossings, now } = over('use');
  expect(now).toBe(0.1);
  expect(points[0].gain).toBeGreaterThan(0);
  expect(crossings).toHaveLength(1);
  expect(crossings[0]).toBeGreaterThan(0.1);
  // With all else as it is, what a use costs is the same for everyone.
  const slopes = points.slice(1).map((p, i) => (p.gain - points[i].gain) / (p.at - points[i].at));
  for (const slope of slopes) expect(slope / slopes[0]).toBeCloseTo(1, 6);
  // So it crosses where that line does.
  expect(crossings[0]).toBeCloseTo(-points[0].gain / slopes[0], 6);
});

it('equals the scores with and without the change, as all is now', () => {
  const scorer = new Scorer(app, model, DEFAULT_CONDITIONS);
  const gain = scorer.score(BASELINE).cost - scorer.score(planWith(BASELINE, detach)).cost;
  for (const what of ['use', 'rate', 'hesitation'] as const) {
    const { points, now } = over(what);
    expect(points.find((p) => p.at === now)!.gain).toBeCloseTo(gain, 6);
  }
});

it('is worked out at round values of each, and at that of now', () => {
  const at = (what: BreakEvenOver) => over(what).points.map((p) => p.at);
  expect(at('use')).toEqual([0, 0.02, 0.05, 0.1, 0.2, 0.35, 0.5, 0.75, 1]);
  expect(at('hesitation')).toEqual(
    [...new Set([0, 50, 100, 200, 400, 800, 1600, model.hesitation.medianMs])].sort((a, b) => a - b),
  );
  const { downKbps } = DEFAULT_CONDITIONS.link;
  const rates = [250, 500, 1000, 1600, 3000, 6000, 12_000, 25_000, 50_000];
  expect(at('rate')).toEqual([...new Set([...rates, downKbps])].sort((a, b) => a - b));
});

it('over the rate of the link: a split saves less the faster it is', () => {
  const { points } = over('rate');
  expect(points[0].gain).toBeGreaterThan(points.at(-1)!.gain * 5);
});

it('is none over use where no use is about what is changed', () => {
  const remedy: Remedy = { words: '', decisions: [{ kind: 'floor', bytes: 5000 }] };
  expect(breakEven(app, BASELINE, remedy, model, DEFAULT_CONDITIONS, 'use')).toBeNull();
});

it('over the use of a move: others are made as they were as long as there is room for them, and less from then on', () => {
  const pages = sketch(
    { main: { imports: ['~home', '~list', '~shop'] }, home: {}, list: { bytes: 90_000 }, shop: { bytes: 60_000 } },
    { routes: [route('/', 'home'), route('/list', 'list'), route('/shop', 'shop')] },
  );
  const usual = modelOf(pages).model;
  const moving = (list: number, shop: number) => ({
    ...usual,
    routes: usual.routes.map((r) =>
      r.pattern === '/'
        ? {
            ...r,
            moves: [
              { to: '/list', share: list },
              { to: '/shop', share: shop },
            ],
          }
        : r,
    ),
  });
  const model = moving(0.2, 0.6);
  const hint: Hint = {
    ...{ kind: 'prefetch', routes: ['/'], place: 'markup' },
    target: { kind: 'route', pattern: '/list' },
  };
  const remedy: Remedy = { words: 'prefetch', decisions: [{ kind: 'hint', hint }] };
  const { points, now } = breakEven(pages, BASELINE, remedy, model, DEFAULT_CONDITIONS, 'use')!;
  expect(now).toBeCloseTo(0.2, 6);
  expect(points.length).toBeGreaterThan(5);
  for (const { at, gain } of points) {
    const scorer = new Scorer(pages, moving(at, Math.min(0.6, 1 - at)), DEFAULT_CONDITIONS);
    expect(gain).toBeCloseTo(scorer.score(BASELINE).cost - scorer.score(planWith(BASELINE, remedy)).cost, 6);
  }
});
