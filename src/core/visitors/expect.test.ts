import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import { drawVisit } from './draw.ts';
import { type Expectation, type ExpectOptions, expectWaits } from './expect.ts';
import { modelOf } from './model.ts';
import { expectedWait, waitCurve, wishesOf } from './reckon.ts';

const modules = {
  main: { imports: ['home', '~shop'] },
  home: { imports: ['~dialog', '~map'] },
  dialog: { bytes: 42_000, imports: ['shared'] },
  map: { bytes: 60_000, imports: ['shared'] },
  shared: { bytes: 50_000 },
  shop: { bytes: 9000 },
};
const parts = [
  part('dialog', 'dialog', { place: 'action', share: 0.5 }),
  part('map', 'map', { place: 'action', share: 0.5 }),
];
const app = (parted = parts, more = {}) =>
  sketch(modules, {
    routes: [route('/', 'home', { landings: 3, parts: parted }), route('/shop', 'shop', { landings: 1 })],
    visitors: {
      dataSaver: 0.3,
      hesitation: { medianMs: 80, spread: 0.6 },
      routes: [
        { pattern: '/', dwell: { medianMs: 3000, spread: 0.2 }, moves: [{ to: '/shop', share: 0.6 }] },
        { pattern: '/shop', dwell: { medianMs: 3000, spread: 0.2 }, moves: [{ to: '/', share: 0.4 }] },
      ],
      ...more,
    },
  });
const approach: Decision[] = [
  { kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'approach' } },
  { kind: 'trigger', splitPoint: 'map', fetch: { on: 'idle' } },
];
const variants = [
  { conditions: ROUND, share: 0.7 },
  { conditions: { ...ROUND, link: { ...ROUND.link, rttMs: 300 } }, share: 0.3 },
];

function expecting(snapshot: ReturnType<typeof app>, decisions: Decision[], options: Partial<ExpectOptions> = {}) {
  const compiler = new VisitCompiler(planned(snapshot, { ...BASELINE, decisions }));
  const { model } = modelOf(snapshot);
  const steps = expectWaits(compiler, model, variants, { seed: 3, visits: 400, error: 0, ...options });
  const told: number[] = [];
  for (;;) {
    const step = steps.next();
    if (step.done) return { found: step.value as Expectation, told, compiler, model };
    told.push(step.value.done / step.value.of);
  }
}

it('agrees with what can be reckoned exactly, where nobody does a thing twice and nothing is shared', () => {
  // One act, once: its expectation is the curve's, over hesitation and conditions.
  const snapshot = app([parts[0]], { routes: [{ pattern: '/', dwell: { medianMs: 3000, spread: 0.2 }, moves: [] }] });
  const { found, compiler, model } = expecting(snapshot, [approach[0]]);
  const wish = wishesOf(model).wishes.find((w) => w.to === 'dialog')!;
  const exact = variants.reduce(
    (sum, v) =>
      sum + v.share * expectedWait(waitCurve(compiler, model.routes[0], wish, v.conditions)!, wish.hesitation, 0),
    0,
  );
  const row = found.rows.find((r) => r.to === 'dialog')!;
  expect(Math.abs(row.wait!.value - exact)).toBeLessThan(Math.max(3 * row.wait!.error, 0.5));
  expect(Math.abs(found.waits.value - exact * wish.perVisit)).toBeLessThan(Math.max(3 * found.waits.error, 0.5));
});

it('agrees with the plain mean of many played visits, within the errors of both', () => {
  const snapshot = app();
  const { found, compiler, model } = expecting(snapshot, approach, { visits: 300 });
  const plain = Array.from({ length: 1500 }, (_, n) => {
    const { visit, even } = drawVisit(model, compiler, 99, n);
    return playVisit(compiler, visit, variants[even < 0.7 ? 0 : 1].conditions).sums;
  });
  const mean = plain.reduce((sum, s) => sum + s.waits, 0) / plain.length;
  const error = Math.sqrt(plain.reduce((sum, s) => sum + (s.waits - mean) ** 2, 0)) / plain.length;
  expect(found.waits.error).toBeLessThan(error * 2);
  expect(Math.abs(found.waits.value - mean)).toBeLessThan(3.5 * Math.hypot(error, found.waits.error));
});

it('tells how far it is, and stops once the error is small enough', () => {
  const { found, told } = expecting(app(), [], { visits: 3000, error: 0.05 });
  expect(found.visits).toBeLessThan(3000);
  expect(found.waits.error / found.waits.value).toBeLessThanOrEqual(0.05);
  expect([...told].sort((a, b) => a - b)).toEqual(told);
});

it('counts what is fetched for nothing, for data savers too, against what it was fetched for', () => {
  const { found } = expecting(app(), approach);
  const none = expecting(app(), []).found;
  expect(none.unused.value).toBe(0);
  expect(found.unused.value).toBeGreaterThan(5000);
  expect(found.unusedSavers).toBeGreaterThan(5000);
  const waste = new Map(found.rows.map((r) => [r.key, r.unused]));
  expect(waste.get('/ · map')).toBeGreaterThan(waste.get('/ · dialog')!);
  expect(waste.get('/ → /shop')).toBe(0);
});

it('plays the same visits whatever the plan, so that plans differ by what they do', () => {
  const [a, b] = [[], approach].map((decisions) => {
    const compiler = new VisitCompiler(planned(app(), { ...BASELINE, decisions }));
    return Array.from({ length: 40 }, (_, n) => drawVisit(modelOf(app()).model, compiler, 7, n).visit);
  });
  expect(a).toEqual(b);
});

it('weighs returning visitors with what they kept', () => {
  const back = expecting(app(parts, { returning: 1 }), []).found;
  const first = expecting(app(), []).found;
  expect(back.bytes.value).toBeLessThan(first.bytes.value / 3);
  expect(back.waits.value).toBeLessThan(first.waits.value / 2);
  expect(back.starts[0].wait).toBeLessThan(first.starts[0].wait);
});
