import { Frontier, type FrontierPoint } from './frontier.ts';

/** A problem of choosing: which of `count` candidates, when a set of them can be measured. */
export interface Problem<M extends { cost: number }> {
  count: number;
  /** Of candidates with the same key only one is in a set. */
  instead(candidate: number): string;
  /** Candidates that are tried together with each of them, since they may help only jointly. */
  bundles: readonly (readonly number[])[];
  measure(set: readonly number[]): M;
  /** What a set has to save for each of its candidates before it is worth having, in the measure's unit. */
  price: number;
  /** Whether a set keeps all limits but that on what it takes up. */
  keeps(measured: M, set: readonly number[]): boolean;
  /** How much a set takes up of what there may be a limit on: gain is weighed against it. */
  weight(measured: M): number;
  /** How much a set may take up at most; null: as much as pays. */
  most: number | null;
  /** Whether what one candidate is worth can hang on whether another one is in the set. */
  touches(a: number, b: number): boolean;
}

export interface Selected<M> {
  /** In the order in which they earned their place. */
  chosen: { candidates: number[]; measured: M }[];
  exhaustive: boolean;
  /** Sets that no other one beats, by what they take up: the least cost (with the price) for each amount. */
  frontier: FrontierPoint<M>[];
}

export interface SelectProgress<M> {
  phase: 'each alone' | 'all sets' | 'adding' | 'leaving out and swapping' | 'the curve';
  done: number;
  of: number;
  soFar: Selected<M>['chosen'];
  /** Sets that are measured next, for others to measure some of them meanwhile. */
  ahead?: number[][];
}

/** At most so many are searched exhaustively. */
export const FEW = 12;
/** Less than this is no gain, in the measure's unit. */
const LEAST = 0.5;
/** Of all sets so many are offered to others at once. */
const AHEAD = 128;
/** Of so many candidates of a set the swaps are told ahead. */
const AROUND = 6;
/** Rounds of leaving out, swapping and adding; each must gain, so that few are ever needed. */
const MOST_ROUNDS = 12;
/** Of what doesn't pay in the best set so many are taken in even so, so often at most, to begin again from there. */
const KICKED = 8;
const MOST_KICKS = 3;
/** Of at most so many candidates pairs are taken in as well. */
const MOST_PAIRED = 24;
/** Beside those that exclude it, so many are tried in the place of each. */
const MOST_SWAPS = 8;

/** Amounts between the least and the most for each of which the best set is searched. */
const LEVELS = 6;
/** So many of the candidates that save most for what they take up are tried there, beside those of sets that are good already. */
const MOST_FRUGAL = 12;

/** Whether a set keeps all limits. */
function fits<M extends { cost: number }>(p: Problem<M>, measured: M, set: readonly number[]): boolean {
  return p.keeps(measured, set) && (p.most === null || p.weight(measured) <= p.most);
}

/** What a set comes to with the price of its candidates. */
function objective<M extends { cost: number }>(p: Problem<M>, set: readonly number[], measured: M): number {
  return measured.cost + p.price * set.length;
}

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

/** What a move saves, and whether that was measured with the set as it is now. */
interface Gain {
  saves: number;
  /** By which it is preferred: what it saves, or (frugally) what it saves for what it takes up. */
  rank: number;
  fresh: boolean;
}

class Search<M extends { cost: number }> {
  readonly moves: readonly (readonly number[])[];
  set: number[] = [];
  now: M;
  phase: SelectProgress<M>['phase'] = 'each alone';
  soFar: Selected<M>['chosen'] = [];
  private readonly gains = new Map<number, Gain>();

  constructor(
    private readonly p: Problem<M>,
    private readonly frugal: boolean,
    /** Candidates that are tried; all of them unless given. */
    among: readonly number[] = Array.from({ length: p.count }, (_, i) => i),
  ) {
    this.moves = [...among.map((i) => [i]), ...p.bundles.filter((b) => b.every((i) => among.includes(i)))];
    this.now = p.measure([]);
  }

  /** What the set comes to now, with its price. */
  get cost(): number {
    return objective(this.p, this.set, this.now);
  }

  told(done: number, of: number): SelectProgress<M> {
    return { phase: this.phase, done, of, soFar: this.soFar };
  }

  /**
   * Begins with all candidates, of those that exclude each other the best alone; where that breaks a limit, without those
   * that take up most of it for what they save. Tells whether any set is left.
   */
  *begin(): Generator<SelectProgress<M>, boolean> {
    const { p } = this;
    const empty = p.measure([]);
    const alone: { at: number; saves: number; takes: number }[] = [];
    for (let at = 0; at < p.count; at++) {
      const measured = p.measure([at]);
      const takes = p.most === null ? 0 : p.weight(measured) - p.weight(empty);
      alone.push({ at, saves: empty.cost - measured.cost, takes });
      yield this.told(at, p.count);
    }
    alone.sort((a, b) => b.saves - a.saves || a.at - b.at);
    const keys = new Set<string>();
    let all = alone.filter(({ at }) => !keys.has(p.instead(at)) && keys.add(p.instead(at)));
    for (;;) {
      const set = all.map(({ at }) => at).sort((a, b) => a - b);
      if (set.length === 0) return false;
      if (fits(p, p.measure(set), set)) {
        this.take(set);
        this.soFar = [{ candidates: set, measured: this.now }];
        return true;
      }
      yield this.told(p.count - set.length, p.count);
      const dearest = all.reduce((a, b) => (b.saves - b.takes < a.saves - a.takes ? b : a));
      all = all.filter((one) => one !== dearest);
    }
  }

  /** Begins with a set, whether it pays or not. */
  startFrom(set: readonly number[]): void {
    this.take([...set]);
    this.soFar = [{ candidates: this.set, measured: this.now }];
  }

  /**
   * The set with one more that isn't in it, for those with which it costs least: beside all others, or, where that breaks a limit, in the place of one.
   */
  promising(): number[][] {
    const { p } = this;
    // Of many candidates the pairs are too many.
    const moves = p.count > MOST_PAIRED ? this.moves.filter((move) => move.length === 1) : this.moves;
    const open = moves.filter((move) => !move.every((one) => this.set.includes(one)));
    const tried = open.flatMap((move) => {
      const beside = joined(p, this.set, move);
      const instead = this.set.map((out) =>
        joined(
          p,
          this.set.filter((m) => m !== out),
          move,
        ),
      );
      const sets = fits(p, p.measure(beside), beside)
        ? [beside]
        : instead.filter((set) => fits(p, p.measure(set), set));
      const costs = sets.map((set) => ({ set, cost: objective(p, set, p.measure(set)) }));
      return costs
        .sort((x, y) => x.cost - y.cost)
        .slice(0, 1)
        .map((best) => ({ ...best, pair: move.length > 1 }));
    });
    tried.sort((x, y) => x.cost - y.cost);
    const first = (pair: boolean) => tried.filter((t) => t.pair === pair).slice(0, KICKED);
    return [...first(false), ...first(true)].map((t) => t.set);
  }

  /** Adds, turn by turn, what saves most; tells whether anything did. */
  *add(): Generator<SelectProgress<M>, boolean> {
    let added = false;
    for (;;) {
      const best = yield* this.bestMove();
      if (best < 0) return added;
      const next = joined(this.p, this.set, this.moves[best]);
      // Found for a smaller set, it may break a limit now.
      if (this.costOf(next) > this.cost - LEAST) {
        this.gains.set(best, { saves: Number.NEGATIVE_INFINITY, rank: Number.NEGATIVE_INFINITY, fresh: true });
        continue;
      }
      this.take(next);
      this.soFar = [...this.soFar, { candidates: [...this.moves[best]], measured: this.now }];
      this.phase = 'adding';
      added = true;
    }
  }

  /**
   * What saved most before is measured again first: as a rule a change saves less the more others were taken, so that
   * what saved less than the best does now needs no new measuring. When nothing saves any more, all are measured once more.
   */
  private *bestMove(): Generator<SelectProgress<M>, number> {
    const open = [...this.moves.keys()].filter((at) => !this.moves[at].every((m) => this.set.includes(m)));
    const order = open.sort((a, b) => this.known(b) - this.known(a) || a - b);
    let best = -1;
    for (const [done, at] of order.entries()) {
      if (best >= 0 && this.known(at) <= this.known(best)) break;
      if (!this.gains.get(at)?.fresh) {
        this.gains.set(at, this.gainOf(joined(this.p, this.set, this.moves[at])));
        yield this.told(done, order.length);
      }
      const saves = this.gains.get(at)?.saves ?? 0;
      if (saves > LEAST && (best < 0 || this.known(at) > this.known(best))) best = at;
    }
    return best;
  }

  private gainOf(set: readonly number[]): Gain {
    const measured = this.p.measure(set);
    if (!fits(this.p, measured, set))
      return { saves: Number.NEGATIVE_INFINITY, rank: Number.NEGATIVE_INFINITY, fresh: true };
    const saves = this.cost - objective(this.p, set, measured);
    const more = this.frugal ? Math.max(1, this.p.weight(measured) - this.p.weight(this.now)) : 1;
    return { saves, rank: saves > 0 ? saves / more : saves, fresh: true };
  }

  private known(at: number): number {
    return this.gains.get(at)?.rank ?? Number.POSITIVE_INFINITY;
  }

  /** The set with one left out, or with others in its place, where that saves; whether it did. */
  *improve(): Generator<SelectProgress<M>, boolean> {
    this.phase = 'leaving out and swapping';
    let best: { set: number[]; cost: number } | null = null;
    const consider = (next: number[], most: number) => {
      const cost = this.costOf(next);
      if (cost < most && (!best || cost < best.cost)) best = { set: next, cost };
    };
    const around = this.set.map((out) => {
      const rest = this.set.filter((m) => m !== out);
      return { rest, swapped: this.inPlaceOf(out).map((move) => joined(this.p, rest, move)) };
    });
    for (const [at, { rest, swapped }] of around.entries()) {
      if (at % AROUND === 0) {
        const next = around.slice(at, at + AROUND).flatMap((a) => [a.rest, ...a.swapped]);
        yield { ...this.told(at, this.set.length), ahead: next };
      }
      // What hardly saves anything goes even so.
      consider(rest, this.cost + LEAST);
      yield this.told(at, this.set.length);
      for (const set of swapped) {
        consider(set, this.cost - LEAST);
        yield this.told(at, this.set.length);
      }
    }
    const found = best as { set: number[]; cost: number } | null;
    if (!found) return false;
    this.take(found.set);
    this.soFar = [{ candidates: this.set, measured: this.now }];
    return true;
  }

  /** Moves that may stand in the place of one: those that exclude it, and the most promising of those that touch it. */
  private inPlaceOf(out: number): (readonly number[])[] {
    const { p } = this;
    const key = p.instead(out);
    const others = [...this.moves.keys()].filter((at) => {
      const move = this.moves[at];
      return !move.includes(out) && !move.every((m) => this.set.includes(m));
    });
    const same = others.filter((at) => this.moves[at].some((m) => p.instead(m) === key));
    const near = others
      .filter((at) => !same.includes(at) && this.moves[at].some((m) => p.touches(out, m)))
      .sort((a, b) => this.known(b) - this.known(a))
      .slice(0, MOST_SWAPS);
    return [...same, ...near].map((at) => this.moves[at]);
  }

  private costOf(set: readonly number[]): number {
    const measured = this.p.measure(set);
    return fits(this.p, measured, set) ? objective(this.p, set, measured) : Number.POSITIVE_INFINITY;
  }

  private take(next: number[]): void {
    const changed = [...this.set, ...next].filter((m) => this.set.includes(m) !== next.includes(m));
    this.set = next;
    this.now = this.p.measure(next);
    for (const [at, gain] of this.gains) {
      const touched = this.moves[at].some((m) =>
        changed.some((c) => this.p.touches(m, c) || this.p.instead(m) === this.p.instead(c)),
      );
      // What broke a limit may fit now.
      if (touched || gain.saves === Number.NEGATIVE_INFINITY)
        this.gains.set(at, { saves: gain.saves, rank: Math.max(gain.rank, 0), fresh: false });
    }
  }
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

/** A set with more candidates; who can't stand beside them goes. */
function joined(p: Pick<Problem<never>, 'instead'>, set: readonly number[], more: readonly number[]): number[] {
  const keys = new Set(more.map((m) => p.instead(m)));
  return [...set.filter((m) => !more.includes(m) && !keys.has(p.instead(m))), ...more].sort((a, b) => a - b);
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
