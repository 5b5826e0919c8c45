import { BASELINE, type Plan } from '../core/plan/types.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import { mistakenApp } from '../test-support/mistaken-app.ts';
import { Adviser } from './adviser.ts';

const { snapshot } = mistakenApp(2);

function finish(adviser: Adviser, plan: Plan) {
  for (let calls = 1; ; calls++) {
    const { advice, done, of } = adviser.step(snapshot, plan, DEFAULT_CONDITIONS);
    expect(done).toBeLessThanOrEqual(of);
    if (advice) return { advice, calls };
  }
}

it('comes to advice in steps, remembers it, and forgets it with the snapshot', () => {
  const adviser = new Adviser();
  const first = finish(adviser, BASELINE);
  expect(first.calls).toBeGreaterThan(2);
  expect(finish(adviser, BASELINE)).toEqual({ advice: first.advice, calls: 1 });
  const aside: Plan = {
    ...BASELINE,
    decisions: [{ kind: 'put aside', finding: first.advice.findings[0].id, reason: '' }],
  };
  expect(finish(adviser, aside).calls).toBe(1);
  adviser.forget();
  expect(finish(adviser, BASELINE).calls).toBeGreaterThan(2);
});

it('chooses in steps, from the beginning whenever it is asked to', () => {
  const adviser = new Adviser();
  const limits = { changes: 2, firstContentMs: 100 };
  const choose = (begin: boolean) => adviser.choose(snapshot, BASELINE, DEFAULT_CONDITIONS, limits, begin);
  choose(true);
  for (let calls = 0; calls < 5; calls++) choose(false);
  let step = choose(true);
  expect(step.turns).toHaveLength(0);
  while (!step.choice) step = choose(false);
  expect(step.choice.turns.length).toBeGreaterThan(0);
  expect(step.choice.after).toBeLessThan(step.choice.before);
});
