// Visits, expectations, advice and choices, on the sample.
import { measure, report } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { planned } = await core('chunks/planned.js');
const { advise } = await core('advise/advise.js');
const { choose } = await core('choose/choose.js');
const { BASELINE } = await core('plan/types.js');
const { DEFAULT_CONDITIONS, DEVICES, LINKS } = await core('sim/conditions.js');
const { expectWaits } = await core('visitors/expect.js');
const { modelOf } = await core('visitors/model.js');
const { playVisit } = await core('visits/play.js');
const { VisitCompiler } = await core('visits/program.js');

/** Twelve things that a visitor of the sample does. */
const TWELVE = [
  ['scroll', 'webcams'],
  ['move', '/timetable'],
  ['act', 'fares'],
  ['act', 'ticket'],
  ['scroll', 'tide'],
  ['act', 'ticket'],
  ['move', '/sailings/:id'],
  ['act', 'deck'],
  ['move', '/book'],
  ['act', 'vehicle'],
  ['act', 'payment'],
  ['move', '/trips'],
].map(([does, on]) => {
  const pause = { dwellMs: 4000, leadMs: does === 'scroll' ? 0 : 300 };
  return does === 'move' ? { does, to: on, by: 'inside', holds: [], ...pause } : { does, part: on, ...pause };
});

export function visitsAndAdvice(snapshot) {
  const compiler = new VisitCompiler(planned(snapshot, BASELINE));
  const visit = { name: '', landing: '/', holds: [], steps: TWELVE };
  report(
    'a visit of the sample in 12 steps',
    measure(() => playVisit(compiler, visit, DEFAULT_CONDITIONS), 40, 20),
    10,
  );
  const decisions = ['src/booking/booking-page.tsx', 'src/trips/trips-page.tsx'].map((splitPoint) => ({
    kind: 'trigger',
    splitPoint,
    fetch: { on: 'approach' },
  }));
  const { model } = modelOf(snapshot);
  const under = [
    [LINKS[0], DEVICES[0], 0.5],
    [LINKS[1], DEVICES[0], 0.3],
    [LINKS[4], DEVICES[3], 0.2],
  ].map(([link, device, share]) => ({ conditions: { link, device, cache: 'empty' }, share }));
  report(
    'advice: all findings of the sample',
    measure(
      () => {
        const steps = advise(snapshot, BASELINE, model, DEFAULT_CONDITIONS);
        while (!steps.next().done);
      },
      3,
      1,
    ),
    2000,
  );
  const wanted = {
    aim: 'mean',
    limits: {
      changes: 20,
      firstContentMs: 50,
      interactiveMs: 50,
      changeMs: 5,
      wasteBytes: 100_000,
      spareDataSavers: false,
    },
  };
  const circumstances = under.map((u, i) => ({ ...u, name: String(i) }));
  for (const [about, aim] of [
    ['hints', 15_000],
    ['both', 60_000],
  ]) {
    const began = performance.now();
    const steps = choose(snapshot, BASELINE, model, circumstances, { ...wanted, about });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const { candidates, turns, measured } = step.value;
    report(
      `choosing ${about}: ${candidates.length} candidates × 3 conditions, ${turns.length} taken, ${measured} sets`,
      performance.now() - began,
      aim,
    );
  }
  for (const plan of [BASELINE, { ...BASELINE, decisions }]) {
    const began = performance.now();
    const own = new VisitCompiler(planned(snapshot, plan));
    const steps = expectWaits(own, model, under, { seed: 7, visits: 20_000, error: 0.01 });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const { visits: played, waits, rows } = step.value;
    const error = ((waits.error / waits.value) * 100).toFixed(2);
    report(
      `expected waits: ${rows.length} moves and acts, ${played} visits, error ${error} %`,
      performance.now() - began,
      5000,
    );
  }
}
