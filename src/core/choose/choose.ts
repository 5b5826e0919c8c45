import { AnalysisContext } from '../advise/detect/analysis-context.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Shared } from '../steps.ts';
import { curveOf, curveSets, type KnownSet, knownOf } from './curve.ts';
import { hintCandidates } from './hint-candidates.ts';
import { checkWanted } from './limits.ts';
import { losersOf } from './losers.ts';
import type { Problem, Selected, SelectProgress } from './problem.ts';
import { select } from './select.ts';
import { SetEvaluator } from './set-evaluator.ts';
import { splitCandidates } from './split-candidates.ts';
import type {
  Ahead,
  Candidate,
  Choice,
  ChoiceProgress,
  Circumstance,
  Limits,
  Measured,
  MeasuredShares,
  Turn,
  Wanted,
} from './types.ts';

/** Splits show new candidates as they are made; so often they are looked for again. */
const ROUNDS = 3;
/** So many sets are told ahead. */
const AT_ONCE = 48;
/** Of the candidates that work at one thing so many, the best alone, are also tried two and two. */
const MOST_BUNDLED = 6;

/**
 * Chooses changes for an app's visitors under several circumstances: hints, ways to split, or both. All that could make
 * sense is measured by simulation and selected under the limits (see `select`). Yields after every measured set, so that it
 * can be stopped with what there is by then, and names sets that it is about to measure, of which it takes what it is given
 * (from a `Gauge`). The same app, plan, circumstances and limits give the same choice. Throws
 * InputError for limits that contradict, circumstances without weight and an app that nobody comes to.
 */
export function* choose(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  circumstances: readonly Circumstance[],
  wanted: Wanted,
): Shared<ChoiceProgress, Choice, Ahead, MeasuredShares> {
  const all = circumstances.reduce((sum, c) => sum + c.share, 0);
  const shared = circumstances.filter((c) => c.share > 0).map((c) => ({ ...c, share: c.share / all }));
  checkWanted(wanted.limits, shared, model);
  const pools: Pool[] = wanted.about === 'hints' ? ['hint'] : wanted.about === 'splits' ? ['split'] : ['split', 'hint'];
  const reference = new SetEvaluator(app, plan, model, shared, [], wanted);
  const before = reference.measure([]);
  const asked: Asked = { app, model, circumstances: shared, wanted, reference, before };
  const sofar: SoFar = { plan, turns: [], candidates: [], exhaustive: true, measured: 0, known: [] };
  for (const pool of pools)
    for (let round = 0; round < (pool === 'split' ? ROUNDS : 1); round++)
      if (!(yield* roundOf(asked, sofar, pool))) break;
  const { turns, candidates, exhaustive, measured } = sofar;
  const chosen = turns.map((t) => t.candidate);
  const last = turns.at(-1);
  const choice = {
    candidates: chosen,
    cost: last?.cost ?? before.cost,
    waste: last?.waste ?? before.waste,
    objective: (last?.cost ?? before.cost) + wanted.limits.changeMs * chosen.length,
  };
  const sets = last ? curveSets(sofar.known, choice, before) : [];
  const onCurve = [...new Set([...chosen, ...sets.flatMap((s) => s.candidates)])];
  const final = new SetEvaluator(app, plan, model, shared, onCurve, wanted);
  const curve = yield* curveOf(final, onCurve, sets, turns, before);
  const set = chosen.map((_, i) => i);
  const better = final.planOf(set);
  return {
    plan: better,
    before,
    after: final.measure(set),
    turns,
    curve,
    losers: losersOf(final.scores(plan), final.scores(better)),
    candidates,
    exhaustive,
    measured: measured + final.measured,
  };
}

type Pool = 'split' | 'hint';

/** What is asked, the same in every round. */
interface Asked {
  app: Snapshot;
  model: VisitorModel;
  circumstances: Circumstance[];
  wanted: Wanted;
  reference: SetEvaluator;
  /** The plan before any change. */
  before: Measured;
}

/** What the rounds have chosen so far. */
interface SoFar {
  plan: Plan;
  turns: Turn[];
  candidates: Candidate[];
  exhaustive: boolean;
  measured: number;
  /** Sets that no other one of their round beats. */
  known: KnownSet[];
}

/** Selects among the candidates of one pool, and adds what it chose; gives whether that was anything. */
function* roundOf(asked: Asked, sofar: SoFar, pool: Pool): Shared<ChoiceProgress, boolean, Ahead, MeasuredShares> {
  const { app, model, circumstances, wanted, reference, before } = asked;
  const { plan, turns: begun } = sofar;
  const left = wanted.limits.changes - begun.length;
  if (left < 1) return false;
  const pooled = candidatesFor(app, plan, model, circumstances, pool);
  const evaluator = new SetEvaluator(app, plan, model, circumstances, pooled, wanted, reference);
  const base = evaluator.measure([]);
  const limits = limitsLeft(wanted.limits, left, before, base);
  const ahead = (sets: number[][]): Ahead => ({ plan: evaluator.plan, circumstances, candidates: pooled, sets });
  const { problem, few, useful } = yield* problemOf(evaluator, pooled, limits, base, begun, ahead);
  const steps = select(problem);
  let step = steps.next();
  while (!step.done) {
    const next = step.value.ahead?.map((set) => set.map((i) => useful[i]));
    const given = yield { ...told(step.value, few, begun, base), ...(next ? { ahead: ahead(next) } : {}) };
    evaluator.learn(given ?? []);
    step = steps.next();
  }
  const added = turnsOf(step.value.chosen, few, begun, base);
  sofar.exhaustive &&= step.value.exhaustive;
  sofar.measured += evaluator.measured;
  sofar.known.push(...knownOf(step.value.frontier, few, begun, limits.changeMs));
  sofar.candidates.push(...pooled.filter((c) => !sofar.candidates.some((k) => k.id === c.id)));
  sofar.turns = [...begun, ...added];
  if (added.length > 0) sofar.plan = evaluator.planOf(added.map((t) => pooled.indexOf(t.candidate)));
  return added.length > 0;
}

function candidatesFor(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  circumstances: readonly Circumstance[],
  pool: Pool,
): Candidate[] {
  // What is late on one link is late on the others; where hints differ is measured.
  const analysis = new AnalysisContext(shipped(app, plan).snapshot, plan, circumstances[0].conditions);
  return pool === 'hint' ? hintCandidates(analysis, model) : splitCandidates(analysis, model);
}

/** What is left of the limits for a further round. */
function limitsLeft(limits: Limits, changes: number, before: Measured, base: Measured): Limits {
  const { wasteBytes } = limits;
  return {
    ...limits,
    changes,
    wasteBytes: wasteBytes === null ? null : Math.max(0, wasteBytes - (base.waste - before.waste)),
  };
}

/** The candidates that are worth searching among: those that help alone, or beside another that works at the same thing. */
function* problemOf(
  evaluator: SetEvaluator,
  pooled: readonly Candidate[],
  limits: Limits,
  base: Measured,
  turns: Turn[],
  ahead: (sets: number[][]) => Ahead,
): Shared<ChoiceProgress, { problem: Problem<Measured>; few: Candidate[]; useful: number[] }, Ahead, MeasuredShares> {
  const gains: number[] = [];
  const alone = [...pooled.keys()].map((at) => [at]);
  /** Tells ahead, now and then, which sets come next. */
  function* tellAhead(sets: number[][], done: number): Shared<ChoiceProgress, void, Ahead, MeasuredShares> {
    if (done % AT_ONCE !== 0) return;
    const next = ahead(sets.slice(done, done + AT_ONCE));
    evaluator.learn((yield { phase: 'each alone', done, of: sets.length, turns, ahead: next }) ?? []);
  }
  for (const at of pooled.keys()) {
    yield* tellAhead(alone, at);
    gains.push(base.cost - evaluator.measure([at]).cost);
    yield { phase: 'each alone', done: at + 1, of: pooled.length, turns };
  }
  const pairs = bundlesOf(pooled, gains);
  const bundled: number[][] = [];
  for (const [done, pair] of pairs.entries()) {
    yield* tellAhead(pairs, done);
    const saved = base.cost - evaluator.measure(pair).cost;
    if (saved > 0.5 && saved > Math.max(0, gains[pair[0]]) + Math.max(0, gains[pair[1]])) bundled.push(pair);
    yield { phase: 'each alone', done: done + 1, of: pairs.length, turns };
  }
  const useful = [...pooled.keys()].filter((at) => gains[at] > 0 || bundled.some((b) => b.includes(at)));
  const few = useful.map((at) => pooled[at]);
  const problem: Problem<Measured> = {
    count: few.length,
    instead: (i) => few[i].instead,
    bundles: bundled.map((pair) => pair.map((at) => useful.indexOf(at))),
    price: limits.changeMs,
    measure: (set) => evaluator.measure(set.map((i) => useful[i])),
    keeps: (m, set) =>
      set.length <= limits.changes &&
      m.firstContentLater <= limits.firstContentMs + 1e-9 &&
      m.interactiveLater <= limits.interactiveMs + 1e-9,
    weight: (m) => m.waste,
    most: limits.wasteBytes === null ? null : base.waste + limits.wasteBytes,
    touches: (a, b) => {
      const one = few[a].routes;
      const other = few[b].routes;
      return one === null || other === null || one.some((r) => other.includes(r));
    },
  };
  return { problem, few, useful };
}

/** Two and two of what works at one thing, or asks the same origin, in its best ways. */
function bundlesOf(pooled: readonly Candidate[], gains: readonly number[]): number[][] {
  const groups = new Map<string, Map<string, number>>();
  for (const [at, { together, instead }] of pooled.entries()) {
    if (together === null) continue;
    const group = groups.get(together) ?? new Map<string, number>();
    groups.set(together, group);
    const known = group.get(instead);
    if (known === undefined || gains[at] > gains[known]) group.set(instead, at);
  }
  return [...groups.values()].flatMap((group) => {
    const best = [...group.values()].sort((a, b) => gains[b] - gains[a] || a - b).slice(0, MOST_BUNDLED);
    return best.flatMap((a, i) => best.slice(i + 1).map((b) => [Math.min(a, b), Math.max(a, b)]));
  });
}

function told(progress: SelectProgress<Measured>, few: Candidate[], begun: Turn[], base: Measured): ChoiceProgress {
  const { phase, done, of, soFar } = progress;
  return { phase, done, of, turns: [...begun, ...turnsOf(soFar, few, begun, base)] };
}

function turnsOf(chosen: Selected<Measured>['chosen'], few: Candidate[], begun: Turn[], base: Measured): Turn[] {
  let last = base.cost;
  const known = new Set(begun.map((t) => t.candidate.id));
  return chosen.flatMap(({ candidates, measured }) => {
    const gain = last - measured.cost;
    last = measured.cost;
    // Of two that are added together one may be there already.
    const added = candidates.map((i) => few[i]).filter((c) => !known.has(c.id));
    for (const { id } of added) known.add(id);
    return added.map((candidate, at) => ({
      candidate,
      gain: at === 0 ? gain : 0,
      cost: measured.cost,
      waste: measured.waste,
    }));
  });
}
