import { fits, joined, LEAST, objective, type Problem, type Selected, type SelectProgress } from './problem.ts';

/** Of so many candidates of a set the swaps are told ahead. */
const AROUND = 6;
/** Of what doesn't pay in the best set so many are taken in even so, to begin again from there. */
const KICKED = 8;
/** Of at most so many candidates pairs are taken in as well. */
export const MOST_PAIRED = 24;
/** Beside those that exclude it, so many are tried in the place of each. */
const MOST_SWAPS = 8;

/** What a move saves, and whether that was measured with the set as it is now. */
interface Gain {
  saves: number;
  /** By which it is preferred: what it saves, or (frugally) what it saves for what it takes up. */
  rank: number;
  fresh: boolean;
}

/** One search by steps: a set, and moves that add to it, leave out of it, or swap. */
export class Search<M extends { cost: number }> {
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
