import type { Score } from '../../core/advise/types.ts';
import type { MeasuredShares, Wanted } from '../../core/choose/types.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { DEFAULT_CONDITIONS } from '../../core/sim/conditions.ts';
import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { Adviser } from './adviser.ts';
import { Measurer } from './measurer.ts';

const { snapshot } = mistakenApp(2);

function finish(adviser: Adviser, plan: Plan) {
  let known = 0;
  for (let calls = 1; ; calls++) {
    const { advice, done, of, soFar } = adviser.step(snapshot, plan, DEFAULT_CONDITIONS, known);
    expect(done).toBeLessThanOrEqual(of);
    if (advice) return { advice, calls };
    if (soFar) expect(soFar.length).not.toBe(known);
    known = soFar?.length ?? known;
  }
}

it('tells what it has found so far to whoever doesn’t know it, again as well', () => {
  const adviser = new Adviser();
  let found: { length: number } | undefined;
  while (!found) found = adviser.step(snapshot, BASELINE, DEFAULT_CONDITIONS, 0).soFar;
  // Somebody begins afresh, and knows none of it.
  const again = adviser.step(snapshot, BASELINE, DEFAULT_CONDITIONS, 0);
  expect(again.advice?.findings.length ?? again.soFar?.length).toBeGreaterThan(0);
});

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
  const limits = {
    changes: 2,
    firstContentMs: 100,
    interactiveMs: 1000,
    changeMs: 0,
    wasteBytes: null,
    spareDataSavers: false,
  };
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

describe('shared out among several', () => {
  /** Two others, each of whom does every second piece of what is told ahead. */
  const others = [new Measurer(), new Measurer()];
  const halves = <T>(list: T[]) => others.map((_, own) => list.filter((__, at) => at % 2 === own));

  it('advice is what it is when one works alone', () => {
    const alone = finish(new Adviser(), BASELINE).advice;
    const adviser = new Adviser();
    let given: (Score | undefined)[] | undefined;
    let told = 0;
    for (;;) {
      const { advice, ahead } = adviser.step(snapshot, BASELINE, DEFAULT_CONDITIONS, 0, { given });
      if (advice) {
        expect(advice.findings.map((f) => [f.id, f.remedy.words])).toEqual(
          alone.findings.map((f) => [f.id, f.remedy.words]),
        );
        expect(advice.before).toEqual(alone.before);
        break;
      }
      given = undefined;
      if (!ahead) continue;
      told += ahead.length;
      const made = halves(ahead).map((plans, n) => others[n].scores(snapshot, plans, DEFAULT_CONDITIONS, 'advice'));
      // One of them is late: what is missing is worked out here.
      given = ahead.map((_, at) => (at === 1 ? undefined : made[at % 2][at >> 1]));
    }
    expect(told).toBeGreaterThan(5);
  });

  it('a choice is what it is when one works alone', () => {
    const limits = {
      changes: 4,
      firstContentMs: 100,
      interactiveMs: 1000,
      changeMs: 0,
      wasteBytes: null,
      spareDataSavers: false,
    };
    const wanted: Wanted = { about: 'both', aim: 'mean', limits };
    const here = [{ name: 'here', conditions: DEFAULT_CONDITIONS, share: 1 }];
    const made = (help: boolean) => {
      const adviser = new Adviser();
      let given: MeasuredShares | undefined;
      let told = 0;
      for (let begin = true; ; begin = false) {
        const step = adviser.choose(snapshot, BASELINE, here, wanted, begin, help ? { given } : undefined);
        expect(step.ahead === undefined || help).toBe(true);
        if (step.choice) return { choice: step.choice, told };
        const { ahead } = step;
        given = undefined;
        if (!ahead) continue;
        told += ahead.sets.length;
        given = halves(ahead.sets).flatMap((sets, n) =>
          others[n].shares(snapshot, wanted, { ...ahead, sets }, 'choice'),
        );
      }
    };
    const [one, many] = [made(false), made(true)];
    expect(many.told).toBeGreaterThan(20);
    expect(many.choice.turns.map((t) => t.candidate.id)).toEqual(one.choice.turns.map((t) => t.candidate.id));
    expect(many.choice.after.cost).toBeCloseTo(one.choice.after.cost, 0);
    // What others measured isn't measured again.
    expect(many.choice.measured).toBeLessThan(one.choice.measured);
  });
});
