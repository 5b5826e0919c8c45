import { Compilations } from '../advise/compiled.ts';
import { Scorer } from '../advise/score.ts';
import type { Remedy } from '../advise/types.ts';
import { planWith } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Circumstance } from './types.ts';

/** What a change saves over several crowds, in expected ms per visit; less than nothing where it harms. */
export interface CrowdGains {
  /** The mean by their shares. */
  gain: number;
  crowds: { name: string; share: number; gain: number }[];
}

/**
 * What each of several changes saves a visit, for each crowd and on average: scored with and without under the conditions
 * of each. Crowds without a share count for nothing and are told all the same.
 */
export function gainsOver(
  app: Snapshot,
  plan: Plan,
  remedies: readonly Remedy[],
  model: VisitorModel,
  crowds: readonly Circumstance[],
): CrowdGains[] {
  const all = crowds.reduce((sum, c) => sum + c.share, 0);
  const compilations = new Compilations(app, model);
  const scorers = crowds.map((c) => new Scorer(app, model, c.conditions, compilations));
  const before = scorers.map((s) => s.score(plan).cost);
  return remedies.map((remedy) => {
    const changed = planWith(plan, remedy);
    const gains = crowds.map(({ name, share }, at) => ({
      name,
      share: all > 0 ? share / all : 0,
      gain: before[at] - scorers[at].score(changed).cost,
    }));
    return { gain: gains.reduce((sum, g) => sum + g.share * g.gain, 0), crowds: gains };
  });
}
