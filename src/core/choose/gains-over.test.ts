import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { advise } from '../advise/advise.ts';
import { Scorer } from '../advise/score.ts';
import { planWith } from '../plan/decisions.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS, DEVICES, LINKS } from '../sim/conditions.ts';
import { finish } from '../steps.ts';
import { modelOf } from '../visitors/model.ts';
import { gainsOver } from './gains-over.ts';
import type { Circumstance } from './types.ts';

const { snapshot } = mistakenApp(3);
const { model } = modelOf(snapshot);
const cable = { link: LINKS[4], device: DEVICES[3], cache: 'empty' as const };
const CROWDS: Circumstance[] = [
  { name: 'crowded', conditions: DEFAULT_CONDITIONS, share: 6 },
  { name: 'cable', conditions: cable, share: 2 },
  { name: 'nobody', conditions: { ...cable, cache: 'returning' }, share: 0 },
];
const remedies = finish(advise(snapshot, BASELINE, model, DEFAULT_CONDITIONS))
  .findings.slice(0, 2)
  .map((f) => f.remedy);

it('what changes save is scored for each crowd, and weighed by how many come so', () => {
  const all = gainsOver(snapshot, BASELINE, remedies, model, CROWDS);
  expect(all).toHaveLength(2);
  for (const [at, { gain, crowds }] of all.entries()) {
    expect(crowds.map((c) => [c.name, c.share])).toEqual([
      ['crowded', 0.75],
      ['cable', 0.25],
      ['nobody', 0],
    ]);
    for (const [n, { conditions }] of CROWDS.entries()) {
      const cost = (plan = BASELINE) => new Scorer(snapshot, model, conditions).score(plan).cost;
      const alone = cost() - cost(planWith(BASELINE, remedies[at]));
      // Waits that were remembered may differ by a hair.
      expect(Math.abs(crowds[n].gain - alone)).toBeLessThan(1);
    }
    expect(gain).toBeCloseTo(0.75 * crowds[0].gain + 0.25 * crowds[1].gain, 6);
  }
});

it('nobody saves anything where nobody comes', () => {
  expect(gainsOver(snapshot, BASELINE, remedies, model, [CROWDS[2]])[0].gain).toBe(0);
});
