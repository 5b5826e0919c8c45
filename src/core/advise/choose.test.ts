import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { modelOf } from '../visitors/model.ts';
import { advise, planWith } from './advise.ts';
import { type Choice, choose, type Limits } from './choose.ts';
import { Scorer } from './score.ts';

const { snapshot } = mistakenApp(4);
const { model } = modelOf(snapshot);

function chosen(limits: Partial<Limits> = {}): { choice: Choice; told: number } {
  const steps = choose(snapshot, BASELINE, model, DEFAULT_CONDITIONS, { changes: 6, firstContentMs: 100, ...limits });
  for (let told = 0; ; told++) {
    const step = steps.next();
    if (step.done) return { choice: step.value, told };
    expect(step.value.done).toBeLessThanOrEqual(step.value.of);
  }
}

describe('choosing changes', () => {
  const { choice, told } = chosen();
  const scorer = new Scorer(snapshot, model, DEFAULT_CONDITIONS);

  it('beats the best single change, and costs what it says', () => {
    const steps = advise(snapshot, BASELINE, model, DEFAULT_CONDITIONS);
    let step = steps.next();
    while (!step.done) step = steps.next();
    const single = scorer.score(planWith(BASELINE, step.value.findings[0].way)).cost;
    expect(choice.turns.length).toBeGreaterThan(1);
    expect(choice.after).toBeLessThan(single);
    expect(scorer.score(choice.plan).cost / choice.after).toBeCloseTo(1, 3);
    expect(told).toBeGreaterThan(choice.turns.length * 3);
  });

  it('tells what each change saved at its turn', () => {
    const gains = choice.turns.reduce((sum, t) => sum + t.gain, 0);
    if (choice.givenUp.length === 0) expect(choice.before - choice.after).toBeCloseTo(gains, 6);
    for (const { gain } of choice.turns) expect(gain).toBeGreaterThanOrEqual(0);
  });

  it('keeps its limits, and makes the same choice again', () => {
    expect(chosen({ changes: 1 }).choice.turns).toHaveLength(1);
    expect(chosen().choice.plan).toEqual(choice.plan);
    const careful = chosen({ firstContentMs: 0 }).choice;
    for (const { finding } of careful.turns) {
      for (const { firstContent } of finding.effect.routes) expect(firstContent).toBeLessThanOrEqual(0);
    }
  });

  it('takes nothing that was put aside', () => {
    const [first] = choice.turns;
    const plan = { ...BASELINE, decisions: [{ kind: 'put aside' as const, finding: first.finding.id, reason: '' }] };
    const steps = choose(snapshot, plan, model, DEFAULT_CONDITIONS, { changes: 2, firstContentMs: 100 });
    let step = steps.next();
    while (!step.done) step = steps.next();
    expect(step.value.turns.map((t) => t.finding.id)).not.toContain(first.finding.id);
    expect(step.value.plan.decisions[0]).toEqual(plan.decisions[0]);
  });
});
