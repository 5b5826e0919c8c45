import { advise } from './core/advise/advise.ts';
import { choose } from './core/choose/choose.ts';
import type { Wanted } from './core/choose/types.ts';
import { BASELINE } from './core/plan/types.ts';
import { DEFAULT_CONDITIONS } from './core/sim/conditions.ts';
import { modelOf } from './core/visitors/model.ts';
import { fullApp } from './test-support/full-app.ts';
import { pin, told, traced } from './test-support/pin.ts';

/** What is advised and chosen for the small app that has one of nearly everything, kept as it is like the stages before it (`pinned.test.ts`). */
const app = fullApp();
const { model } = modelOf(app);
const LIMITS = {
  ...{ firstContentMs: 200, interactiveMs: 1000, changeMs: 5, wasteBytes: 60_000, spareDataSavers: true },
};
const usual = { name: 'usual', conditions: DEFAULT_CONDITIONS, share: 3 };
const again = { name: 'again', conditions: { ...DEFAULT_CONDITIONS, cache: 'returning' as const }, share: 1 };

it('what is advised', () => pin('advice', told(traced(advise(app, BASELINE, model, DEFAULT_CONDITIONS)))));

it.each<[Wanted['about'], Wanted['aim'], number]>([
  ['hints', 'mean', 2],
  ['splits', 'worst', 1],
])('which %s are chosen, best in the %s', (about, aim, changes) => {
  const circumstances = aim === 'mean' ? [usual] : [usual, again];
  const wanted = { about, aim, limits: { ...LIMITS, changes } };
  pin(`${about} for the ${aim}`, told(traced(choose(app, BASELINE, model, circumstances, wanted))));
});
