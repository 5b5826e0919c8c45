import { subjectOf, withoutSubject } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../visitors/types.ts';
import { advise, planWith } from './advise.ts';
import { Scorer } from './score.ts';
import type { Finding } from './types.ts';

/** What a choice has to keep. */
export interface Limits {
  /** Changes that are taken at most. */
  changes: number;
  /** No landing's first content may come later by more than this with any change, in ms. */
  firstContentMs: number;
}

/** One change that was taken: what it saved at its turn, and what the plan costs from then on, in expected ms per visit. */
export interface Turn {
  finding: Finding;
  gain: number;
  cost: number;
}

export interface Choice {
  turns: Turn[];
  plan: Plan;
  before: number;
  after: number;
  /** Changes that were taken first and given up in the end, since later ones made them needless. */
  givenUp: Turn[];
}

export interface ChoiceProgress {
  turns: Turn[];
  /** Of the present turn. */
  done: number;
  of: number;
}

/** A change that costs less than this to leave out is left out in the end, in expected ms per visit. */
const NEEDLESS = 0.5;

/**
 * Chooses changes by advice alone: turn by turn the one that helps most as the plan is by then, as long as one helps and
 * the limits are kept; then backward, leaving out what later changes made needless. Yields after every scored way, so that
 * it can be stopped with what there is so far. The same app, plan and conditions give the same choice.
 */
export function* choose(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  conditions: Conditions,
  limits: Limits,
): Generator<ChoiceProgress, Choice> {
  const scorer = new Scorer(app, model, conditions);
  const before = scorer.score(plan).cost;
  const turns: Turn[] = [];
  let now = plan;
  let cost = before;
  while (turns.length < limits.changes) {
    const steps = advise(app, now, model, conditions, scorer);
    let step = steps.next();
    while (!step.done) {
      yield { turns, ...step.value };
      step = steps.next();
    }
    const aside = new Set(plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [d.finding] : [])));
    const best = step.value.findings.find((f) => !aside.has(f.id) && keeps(f, limits));
    if (!best) break;
    now = planWith(now, best.way);
    const next = scorer.score(now).cost;
    // What seemed to help over nearly the same links may not help under these.
    if (next > cost) break;
    turns.push({ finding: best, gain: cost - next, cost: next });
    cost = next;
  }
  const givenUp: Turn[] = [];
  for (const turn of turns.slice(0, -1)) {
    const own = turn.finding.way.decisions.map(subjectOf);
    if (own.length === 0 || own.some((s) => plan.decisions.some((d) => subjectOf(d) === s))) continue;
    const without = own.reduce(withoutSubject, now);
    const score = scorer.score(without).cost;
    if (score > cost + NEEDLESS) continue;
    now = without;
    cost = score;
    givenUp.push(turn);
  }
  return { turns: turns.filter((t) => !givenUp.includes(t)), plan: now, before, after: cost, givenUp };
}

function keeps({ effect }: Finding, { firstContentMs }: Limits): boolean {
  return effect.routes.every((r) => r.firstContent <= firstContentMs);
}
