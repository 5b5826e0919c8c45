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
  const limits = { changes: 2, firstContentMs: 100, wasteBytes: null, spareDataSavers: false };
  const here = [{ name: 'here', conditions: DEFAULT_CONDITIONS, share: 1 }];
  const choose = (begin: boolean) =>
    adviser.choose(snapshot, BASELINE, here, { about: 'both', aim: 'mean', limits }, begin);
  choose(true);
  for (let calls = 0; calls < 5; calls++) choose(false);
  let step = choose(true);
  expect(step.turns).toHaveLength(0);
  while (!step.choice) step = choose(false);
  expect(step.choice.turns.length).toBeGreaterThan(0);
  expect(step.choice.after.cost).toBeLessThan(step.choice.before.cost);
});

it('measures every hint in steps, and remembers the table of a plan', () => {
  const adviser = new Adviser();
  const all = () => {
    for (let calls = 1; ; calls++) {
      const { rows } = adviser.hints(snapshot, BASELINE, DEFAULT_CONDITIONS);
      if (rows) return { rows, calls };
    }
  };
  const first = all();
  expect(first.calls).toBeGreaterThan(1);
  expect(all()).toEqual({ rows: first.rows, calls: 1 });
  expect(first.rows.every((r) => !r.on && r.trouble === null)).toBe(true);
});
