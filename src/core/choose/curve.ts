import type { FrontierPoint } from './frontier.ts';
import type { SetEvaluator } from './set-evaluator.ts';
import type { Candidate, ChoiceProgress, CurvePoint, Measured, Turn } from './types.ts';

/** A set that saves hardly more than one of less waste isn't on the curve: less than this. In ms per visit, and as a share of all that can be saved. */
const LEAST_STEP = 0.5;
const LEAST_SHARE = 0.02;

/** A set of candidates that was measured while choosing, with what it comes to. */
export interface KnownSet {
  candidates: Candidate[];
  cost: number;
  waste: number;
  /** With what each of its changes has to save. */
  objective: number;
}

/** The best sets of a round, each together with what earlier rounds chose. */
export function knownOf(
  frontier: readonly FrontierPoint<Measured>[],
  few: readonly Candidate[],
  begun: readonly Turn[],
  changeMs: number,
): KnownSet[] {
  const taken = begun.map((t) => t.candidate);
  const ids = new Set(taken.map((c) => c.id));
  return frontier.map(({ set, weight, objective, measured }) => ({
    // What an earlier round took may be found again.
    candidates: [...taken, ...set.map((i) => few[i]).filter((c) => !ids.has(c.id))],
    cost: measured.cost,
    waste: weight,
    objective: objective + changeMs * begun.length,
  }));
}

/**
 * The sets of the curve, by rising waste, the whole choice last: of all known ones those that no other beats by what they save, nor by what is
 * left of that once each change has earned its upkeep.
 */
export function curveSets(known: readonly KnownSet[], choice: KnownSet, before: Measured): KnownSet[] {
  const step = Math.max(LEAST_STEP, (before.cost - choice.cost) * LEAST_SHARE);
  const below = known
    .filter((k) => k.waste < choice.waste && k.cost > choice.cost + step && k.objective > choice.objective)
    .sort((a, b) => a.waste - b.waste || a.objective - b.objective);
  const sets: KnownSet[] = [];
  for (const set of below) {
    const last = sets.at(-1) ?? { cost: before.cost, objective: before.cost };
    if (set.objective < last.objective && set.cost < last.cost - step) sets.push(set);
  }
  return [...sets, choice];
}

/** The points of the curve: each change of a set with what it saves at its turn. Yields after each point. */
export function* curveOf(
  evaluator: SetEvaluator,
  candidates: readonly Candidate[],
  sets: readonly KnownSet[],
  turns: Turn[],
  before: Measured,
): Generator<ChoiceProgress, CurvePoint[]> {
  const points: CurvePoint[] = [];
  for (const set of sets) {
    // The chosen ones come first among the candidates.
    const order = set.candidates.map((c) => candidates.indexOf(c)).sort((a, b) => a - b);
    let last = before.cost;
    const path = order.map((at, n): Turn => {
      const { cost, waste } = evaluator.measure(order.slice(0, n + 1));
      const gain = last - cost;
      last = cost;
      return { candidate: candidates[at], gain, cost, waste };
    });
    points.push({ gain: before.cost - last, waste: path.at(-1)!.waste, turns: path });
    yield { phase: 'the curve', done: points.length, of: sets.length, turns };
  }
  return points;
}
