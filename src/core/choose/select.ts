import { Frontier } from './frontier.ts';
import { fits, LEAST, objective, type Problem, type Selected, type SelectProgress } from './problem.ts';
import { MOST_PAIRED, Search } from './search.ts';

/** At most so many are searched exhaustively. */
export const FEW = 12;
/** Of all sets so many are offered to others at once. */
const AHEAD = 128;
/** Rounds of leaving out, swapping and adding; each must gain, so that few are ever needed. */
const MOST_ROUNDS = 12;
/** From the best set the search begins again so often at most. */
const MOST_KICKS = 3;
/** Amounts between the least and the most for each of which the best set is searched. */
const LEVELS = 6;
/** So many of the candidates that save most for what they take up are tried there, beside those of sets that are good already. */
const MOST_FRUGAL = 12;

/**
 * Selects the set of candidates with the least cost (and price) that keeps the limits. With few candidates every set is tried.
 * Otherwise: each alone; then forward, turn by turn the one (or bundle) that saves most as the set is by then; then
 * leaving out, swapping one for another, and adding, as long as that saves anything. Yields after every measured set.
 */
export function* select<M extends { cost: number }>(problem: Problem<M>): Generator<SelectProgress<M>, Selected<M>> {
  return yield* problem.count <= FEW ? exhaustively(problem) : stepwise(problem);
}

/** The problem, and the sets of it that no other one beats of all that are measured from now on. */
function noted<M extends { cost: number }>(p: Problem<M>): { p: Problem<M>; frontier: Frontier<M> } {
  const frontier = new Frontier<M>();
  const measure = (set: readonly number[]): M => {
    const measured = p.measure(set);
    const objectiveOf = objective(p, set, measured);
    if (set.length > 0 && fits(p, measured, set))
      frontier.note({ set: [...set], weight: p.weight(measured), objective: objectiveOf, measured });
    return measured;
  };
  return { p: { ...p, measure }, frontier };
}

function* exhaustively<M extends { cost: number }>(problem: Problem<M>): Generator<SelectProgress<M>, Selected<M>> {
  const { p, frontier } = noted(problem);
  const of = 2 ** p.count;
  let best: { set: number[]; measured: M } = { set: [], measured: p.measure([]) };
  const setOf = (bits: number) => Array.from({ length: p.count }, (_, i) => i).filter((i) => bits & (1 << i));
  const isSet = (set: number[]) => new Set(set.map((i) => p.instead(i))).size === set.length;
  for (let bits = 1; bits < of; bits++) {
    if (bits % AHEAD === 1) {
      const next = Array.from({ length: Math.min(AHEAD, of - bits) }, (_, i) => setOf(bits + i)).filter(isSet);
      yield {
        phase: 'all sets',
        done: bits,
        of,
        soFar: [{ candidates: best.set, measured: best.measured }],
        ahead: next,
      };
    }
    const set = setOf(bits);
    if (!isSet(set)) continue;
    const measured = p.measure(set);
    const saves = objective(p, best.set, best.measured) - objective(p, set, measured);
    if (saves > LEAST && fits(p, measured, set)) best = { set, measured };
    yield { phase: 'all sets', done: bits, of, soFar: [{ candidates: best.set, measured: best.measured }] };
  }
  return { chosen: yield* inOrder(p, best.set), exhaustive: true, frontier: frontier.points };
}

/** The search by steps alone, however many candidates there are. */
export function* stepwise<M extends { cost: number }>(problem: Problem<M>): Generator<SelectProgress<M>, Selected<M>> {
  const { p, frontier } = noted(problem);
  let best: Search<M> | null = null;
  for (const frugal of p.most === null ? [false] : [false, true]) {
    const search = new Search(p, frugal);
    yield* settled(search);
    if (!best || search.cost < best.cost) best = search;
  }
  // What pays only when many are there together is found from the other end: with all of them, leaving out.
  const whole = new Search(p, false);
  if (yield* whole.begin()) {
    yield* settled(whole);
    if (whole.cost < best!.cost) best = whole;
  }
  // What pays only with a partner that isn't there, or in the place of two, is found by taking it in though it costs.
  const kicked = yield* kickedOut(p, best!);
  const chosen = yield* inOrder(p, kicked.set);
  yield* levelled(p, frontier, chosen);
  return { chosen, exhaustive: false, frontier: frontier.points };
}

/**
 * Searches the best set for each of some amounts between the least that any good set takes up and what the best one does: from the best
 * that is known for it, by leaving out, swapping and adding.
 */
function* levelled<M extends { cost: number }>(
  p: Problem<M>,
  frontier: Frontier<M>,
  chosen: Selected<M>['chosen'],
): Generator<SelectProgress<M>, void> {
  const least = frontier.points[0]?.weight ?? 0;
  const span = (frontier.points.at(-1)?.weight ?? 0) - least;
  if (span <= 0) return;
  const among = worthWeighing(p, frontier);
  for (let level = 0; level < LEVELS; level++) {
    const most = least + (span * level) / LEVELS;
    const within = { ...p, most };
    const search = new Search(within, false, among);
    search.startFrom(frontier.within(most)?.set ?? []);
    const ways = p.count > MOST_PAIRED ? [settled(search)] : [settled(search), kickedOut(within, search)];
    for (const steps of ways)
      for (const step of steps) yield { ...step, phase: 'the curve', done: level, of: LEVELS, soFar: chosen };
  }
}

/** Candidates of the sets that no other one beats, and those that save most alone for what they take up. */
function worthWeighing<M extends { cost: number }>(p: Problem<M>, frontier: Frontier<M>): number[] {
  const empty = p.measure([]);
  const rank = Array.from({ length: p.count }, (_, i) => {
    const measured = p.measure([i]);
    return (empty.cost - measured.cost) / Math.max(1, p.weight(measured) - p.weight(empty));
  });
  const frugal = [...rank.keys()].sort((a, b) => rank[b] - rank[a] || a - b).slice(0, MOST_FRUGAL);
  return [...new Set([...frontier.points.flatMap((f) => f.set), ...frugal])].sort((a, b) => a - b);
}

/** Begins again from the best set with one more that doesn't pay there, for the most promising of these, as long as that finds a better one. */
function* kickedOut<M extends { cost: number }>(
  p: Problem<M>,
  found: Search<M>,
): Generator<SelectProgress<M>, Search<M>> {
  let best = found;
  for (let round = 0; round < MOST_KICKS; round++) {
    let better: Search<M> | null = null;
    for (const next of best.promising()) {
      const search = new Search(p, false);
      search.startFrom(next);
      // What is found so far stays the best set until another one is better.
      for (const step of settled(search)) yield { ...step, soFar: (better ?? best).soFar };
      if (search.cost < (better ?? best).cost - LEAST) better = search;
    }
    if (!better) break;
    best = better;
  }
  return best;
}

/** Adds, leaves out and swaps until nothing saves any more. */
function* settled<M extends { cost: number }>(search: Search<M>): Generator<SelectProgress<M>, void> {
  yield* search.add();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const better = yield* search.improve();
    const more = yield* search.add();
    if (!better && !more) break;
  }
}

/** A set in the order in which each earns most as the set is by then. */
export function* inOrder<M extends { cost: number }>(
  p: Problem<M>,
  set: readonly number[],
): Generator<SelectProgress<M>, Selected<M>['chosen']> {
  const chosen: Selected<M>['chosen'] = [];
  let left = [...set];
  while (left.length > 0) {
    const so = chosen.flatMap((c) => c.candidates);
    let best: { candidate: number; measured: M } | null = null;
    for (const candidate of left) {
      const measured = p.measure([...so, candidate].sort((a, b) => a - b));
      if (!best || measured.cost < best.measured.cost) best = { candidate, measured };
      yield { phase: 'leaving out and swapping', done: set.length - left.length, of: set.length, soFar: chosen };
    }
    chosen.push({ candidates: [best!.candidate], measured: best!.measured });
    left = left.filter((c) => c !== best!.candidate);
  }
  return chosen;
}
