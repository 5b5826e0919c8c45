import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { AnalysisContext } from '../advise/detect/analysis-context.ts';
import { Scorer } from '../advise/score.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { seeded } from '../sim/random.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { modelOf } from '../visitors/model.ts';
import { hintCandidates } from './hint-candidates.ts';
import { SetEvaluator } from './set-evaluator.ts';

const NO_LIMITS = {
  changes: 99,
  firstContentMs: 1e6,
  interactiveMs: 1e6,
  changeMs: 0,
  wasteBytes: null,
  spareDataSavers: false,
};

/** Pages that are reached one from the other, some in two ways, each with a dialog that needs the same heavy module. */
function chain(): Snapshot {
  const names = ['', 'list', 'item', 'order'];
  const modules = Object.fromEntries(
    names.flatMap((_, i) => [
      [`page${i}`, { imports: [`~dialog${i}`], bytes: 30_000 }],
      [`dialog${i}`, { imports: ['chart'], bytes: 80_000 }],
    ]),
  );
  return sketch(
    { chart: { bytes: 300_000 }, main: { imports: names.map((_, i) => `~page${i}`), bytes: 30_000 }, ...modules },
    {
      routes: names.map((name, i) =>
        route(`/${name}`, `page${i}`, {
          landings: i === 0 ? 90 : 3,
          links: names.slice(i + 1, i + 3).map((to) => `/${to}`),
          parts: [part(`dialog${i}`, `dialog${i}`, { place: 'action', share: 0.5 })],
        }),
      ),
    },
  );
}

describe('measuring sets of candidates', () => {
  it.each([
    ['pages in a row', chain()],
    ['an app with mistakes', mistakenApp(3).snapshot],
    ['another', mistakenApp(8).snapshot],
  ])('says what a fresh scoring says, whatever was measured before: %s', (_, app) => {
    const { model } = modelOf(app);
    const candidates = hintCandidates(new AnalysisContext(app, BASELINE, DEFAULT_CONDITIONS), model);
    expect(candidates.length).toBeGreaterThan(5);
    const circumstances = [{ name: 'here', conditions: DEFAULT_CONDITIONS, share: 1 }];
    const evaluator = new SetEvaluator(app, BASELINE, model, circumstances, candidates, {
      aim: 'mean',
      limits: NO_LIMITS,
    });
    // Few at a time, so that most routes are known from another set.
    const next = seeded(5);
    for (let round = 0; round < 40; round++) {
      const drawn = Array.from({ length: 1 + (round % 3) }, () => Math.floor(next() * candidates.length));
      const set = [...new Set(drawn)].sort((x, y) => x - y);
      if (new Set(set.map((i) => candidates[i].instead)).size < set.length) continue;
      const { cost, waste } = evaluator.measure(set);
      const fresh = new Scorer(app, model, DEFAULT_CONDITIONS).score(evaluator.planOf(set));
      expect(cost).toBeCloseTo(fresh.cost, 6);
      expect(waste).toBeCloseTo(fresh.waste, 6);
    }
  });
});
