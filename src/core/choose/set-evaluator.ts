import { Compilations } from '../advise/compiled.ts';
import { Scorer } from '../advise/score.ts';
import type { Score } from '../advise/types.ts';
import { planWith } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { changesOf } from './changes.ts';
import type { Candidate, Circumstance, Measured, MeasuredShares, RouteShare, Wanted } from './types.ts';

/**
 * Measures sets of candidates over one app's visitors in all circumstances. A hint works on the routes whose documents
 * carry it, so that routes are measured by themselves and remembered by the candidates that touch them.
 */
export class SetEvaluator {
  private readonly scorers: { scorer: Scorer; circumstance: Circumstance }[];
  private readonly cache = new Map<string, RouteShare[]>();
  private readonly patterns: string[];
  /** First content and answer of each route before any change, per circumstance. */
  private readonly first = new Map<string, { content: number[]; answer: number[] }>();
  /** Sets and routes that were really simulated. */
  measured = 0;

  constructor(
    app: Snapshot,
    readonly plan: Plan,
    model: VisitorModel,
    circumstances: readonly Circumstance[],
    private readonly candidates: readonly Candidate[],
    private readonly wanted: Pick<Wanted, 'aim' | 'limits'>,
    /** Whose plan first content is compared with; its own otherwise. */
    reference?: SetEvaluator,
  ) {
    const compilations = new Compilations(app, model);
    this.scorers = circumstances.map((circumstance) => ({
      circumstance,
      scorer: new Scorer(app, model, circumstance.conditions, compilations),
    }));
    this.patterns = app.routes.map((r) => r.pattern);
    this.measure([]);
    for (const pattern of this.patterns) {
      const own = this.cache.get(keyOf(pattern, []))!;
      const first = { content: own.map((s) => s.firstContent), answer: own.map((s) => s.interactive) };
      this.first.set(pattern, reference?.first.get(pattern) ?? first);
    }
  }

  planOf(set: readonly number[]): Plan {
    return planWith(
      this.plan,
      changesOf(
        set.map((i) => this.candidates[i]),
        this.wanted.limits,
      ),
    );
  }

  /** Takes over what another evaluator of the same app, plan, candidates and circumstances has measured. */
  learn(shares: MeasuredShares): void {
    for (const [key, own] of shares) if (!this.cache.has(key)) this.cache.set(key, own);
  }

  /** What is known of sets, once they are measured. */
  sharesOf(sets: readonly (readonly number[])[]): MeasuredShares {
    const found = new Map<string, RouteShare[]>();
    for (const set of sets) {
      this.measure(set);
      for (const { key } of this.keysOf(set)) found.set(key, this.cache.get(key)!);
    }
    return [...found];
  }

  private keysOf(set: readonly number[]): { pattern: string; key: string }[] {
    const touching = (pattern: string) => set.filter((i) => this.candidates[i].routes?.includes(pattern) ?? true);
    return this.patterns.map((pattern) => ({ pattern, key: keyOf(pattern, touching(pattern)) }));
  }

  measure(set: readonly number[]): Measured {
    const keys = this.keysOf(set);
    const missing = keys.filter(({ key }) => !this.cache.has(key));
    if (missing.length > 0) {
      const plan = this.planOf(set);
      const only = new Set(missing.map((m) => m.pattern));
      const scores = this.scorers.map(({ scorer }) => scorer.score(plan, only));
      for (const { pattern, key } of missing)
        this.cache.set(
          key,
          scores.map((score, at) => shareOf(score, pattern, this.scorers[at].scorer)),
        );
      this.measured++;
    }
    return this.sum(keys.map(({ pattern, key }) => ({ pattern, shares: this.cache.get(key)! })));
  }

  private sum(routes: { pattern: string; shares: RouteShare[] }[]): Measured {
    let firstContentLater = 0;
    let interactiveLater = 0;
    for (const { pattern, shares } of routes) {
      const before = this.first.get(pattern);
      if (!before) continue;
      for (const [at, { firstContent, interactive }] of shares.entries()) {
        firstContentLater = Math.max(firstContentLater, firstContent - before.content[at]);
        interactiveLater = Math.max(interactiveLater, interactive - before.answer[at]);
      }
    }
    const costs = this.scorers.map((_, at) => routes.reduce((sum, { shares }) => sum + shares[at].cost, 0));
    const wastes = this.scorers.map((_, at) => routes.reduce((sum, { shares }) => sum + shares[at].waste, 0));
    const mean = costs.reduce((sum, cost, at) => sum + cost * this.scorers[at].circumstance.share, 0);
    return {
      cost: this.wanted.aim === 'worst' ? Math.max(...costs) : mean,
      waste: Math.max(...wastes),
      firstContentLater,
      interactiveLater,
      costs,
    };
  }

  /** The full scores of a plan, per circumstance. */
  scores(plan: Plan): { circumstance: Circumstance; score: Score }[] {
    return this.scorers.map(({ circumstance, scorer }) => ({ circumstance, score: scorer.score(plan) }));
  }
}

function keyOf(pattern: string, touching: readonly number[]): string {
  return `${pattern}\n${touching.join(' ')}`;
}

function shareOf(score: Score, pattern: string, scorer: Scorer): RouteShare {
  const { cost, waste } = scorer.partOf(score, pattern);
  const route = score.routes.find((r) => r.pattern === pattern)!;
  return { cost, waste, firstContent: route.firstContent, interactive: route.interactive };
}
