import { madeUpProblem } from '../script/benching/made-up-choices.mjs';
import { AnalysisContext } from './core/advise/detect/analysis-context.ts';
import { factsOf } from './core/advise/facts.ts';
import { hintCandidates } from './core/choose/hint-candidates.ts';
import { select, stepwise } from './core/choose/select.ts';
import { splitCandidates } from './core/choose/split-candidates.ts';
import { BASELINE } from './core/plan/types.ts';
import { shipped } from './core/ship/shipped.ts';
import { DEFAULT_CONDITIONS } from './core/sim/conditions.ts';
import { seeded } from './core/sim/random.ts';
import { modelOf } from './core/visitors/model.ts';
import { FULL_PLANS, fullApp } from './test-support/full-app.ts';
import { pin, told, traced } from './test-support/pin.ts';

/** The way that a search takes through made-up problems: what it measures, in which order, and what it tells meanwhile. */
it.each<[string, number, number, boolean]>([
  ['few candidates', 7, 0, true],
  ['few that must pay', 9, 40, false],
  ['some', 14, 0, true],
  ['some that must pay, without a limit', 16, 30, false],
  ['many', 22, 10, true],
])('how %s are searched', (name, count, price, isLimited) => {
  const ways = [1, 2].flatMap((seed) =>
    [select, stepwise].map((search) => {
      const problem = madeUpProblem(seeded, seed * 100 + count, count, price);
      const measured: string[] = [];
      const p = {
        ...problem,
        most: isLimited ? problem.most : null,
        measure: (set: readonly number[]) => {
          measured.push(set.join(' '));
          return problem.measure(set);
        },
      };
      const { result, way } = traced<unknown>(search(p));
      return [measured.length, told(measured), way, result];
    }),
  );
  pin(name, told(ways));
});

it('what could be chosen, and what is so whatever it costs, under plans of every kind', () => {
  const app = fullApp();
  const { model } = modelOf(app);
  const texts = [BASELINE, ...FULL_PLANS].map((plan) => {
    const analysis = new AnalysisContext(shipped(app, plan).snapshot, plan, DEFAULT_CONDITIONS);
    return told([plan.name, hintCandidates(analysis, model), splitCandidates(analysis, model), factsOf(app, plan)]);
  });
  pin('candidates', texts.join('\n'));
});
