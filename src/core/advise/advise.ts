import { Reacher } from '../chunks/reach.ts';
import { startModules } from '../chunks/start-modules.ts';
import { planWith } from '../plan/decisions.ts';
import { effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Shared } from '../steps.ts';
import type { FindingKind } from '../vocabulary/findings.ts';
import { Compilations } from './compiled.ts';
import { AnalysisContext } from './detect/analysis-context.ts';
import { deferredFirstScreen, staircases } from './detect/chain.ts';
import { keptBySharing, partsInStart, routeLeaks } from './detect/code-in-start.ts';
import { scriptsInTheWay, smallFiles, unusedStyles } from './detect/files.ts';
import { costlyHints, costlyLinks, hintsForSavers } from './detect/given-hints.ts';
import { copies, mixedByDeploys, nestedSplits, twoVersions } from './detect/graph.ts';
import { dataAfterCode, foundLate, otherOrigins } from './detect/late.ts';
import { onlyOnActs } from './detect/on-acts.ts';
import { costlyDecisions } from './detect/own-decisions.ts';
import { failsSilently, unsteadyScreen } from './detect/seen.ts';
import { sheetsOfOthers } from './detect/sheets.ts';
import { cautionsOf, effectOf, LEAST_SEEN, SMALL_LOSS, seenSum } from './effect.ts';
import { factsOf } from './facts.ts';
import { payingAfter, payingElsewhere } from './paying-otherwise.ts';
import { Scorer } from './score.ts';
import type { Advice, AdviceProgress, CandidateFinding, Effect, Finding, Remedy, Score } from './types.ts';

/** Less than this, in expected ms per visit, is no gain. */
const LEAST_GAIN = 0.5;
/** Smaller effects are measured over links that differ a little in rate as well. */
const SMALL_GAIN = 12;
const NEAR = [0.95, 1.05];
/** Two findings that take mostly the same code out of the starts are one. */
const SAME = 0.7;
/** Of so many candidates the plans are told ahead. */
const AT_ONCE = 12;

/** Finds what looks worth changing, before it is measured. `before`: what the plan costs visitors as it is. */
type Detector = (analysis: AnalysisContext, before: Score) => CandidateFinding[];

/**
 * Who finds what. `imports`: only where there are imports that somebody could change (an output without sources in its
 * maps has none). `score`: it is about what people see, which no change of cost tells.
 */
const DETECTORS: Record<FindingKind, { needs: 'imports' | 'score' | 'nothing'; by: Detector[] }> = {
  'route leak': { needs: 'imports', by: [routeLeaks] },
  'part in the start': { needs: 'imports', by: [partsInStart] },
  'kept by sharing': { needs: 'imports', by: [keptBySharing] },
  'only on acts': { needs: 'imports', by: [onlyOnActs] },
  staircase: { needs: 'imports', by: [staircases] },
  'deferred first screen': { needs: 'imports', by: [deferredFirstScreen] },
  'nested splits': { needs: 'imports', by: [nestedSplits] },
  'two versions': { needs: 'imports', by: [twoVersions] },
  'found late': { needs: 'nothing', by: [foundLate] },
  'other origin': { needs: 'nothing', by: [otherOrigins] },
  'data after code': { needs: 'nothing', by: [dataAfterCode] },
  'script in the way': { needs: 'nothing', by: [scriptsInTheWay] },
  'unused styles': { needs: 'nothing', by: [unusedStyles] },
  'styles of others': { needs: 'nothing', by: [sheetsOfOthers] },
  'small files': { needs: 'nothing', by: [smallFiles] },
  copies: { needs: 'nothing', by: [copies] },
  'mixed by deploys': { needs: 'nothing', by: [mixedByDeploys] },
  'hint that costs': { needs: 'nothing', by: [costlyHints, costlyLinks, hintsForSavers] },
  'decision that costs': { needs: 'nothing', by: [costlyDecisions] },
  'unsteady screen': { needs: 'score', by: [unsteadyScreen] },
  'fails silently': { needs: 'score', by: [failsSilently] },
};

/**
 * Everything that looks worth changing in an app under a plan, before it is measured; about what people see only where
 * the score of the plan is given.
 */
export function candidatesOf(analysis: AnalysisContext, before?: Score): CandidateFinding[] {
  const { output } = analysis.snapshot;
  const cuts = output === null || output.files.some((f) => f.inside === 'sources');
  return Object.values(DETECTORS).flatMap(({ needs, by }) => {
    if (needs === 'imports' && !cuts) return [];
    if (needs === 'score' && !before) return [];
    return by.flatMap((detector) => detector(analysis, before ?? NO_SCORE));
  });
}

const NO_SCORE: Score = { routes: [], waits: [], waste: 0, cost: 0 };

/**
 * Advice for an app under a plan: every candidate is tried on a copy of the plan, in each of its ways, and measured by
 * simulation over all landings, moves and acts. What doesn't help is no advice but listed as tried; of several that take
 * the same code out of the starts only the best remains. Yields after each way how far it is and what helps so far, and now and then the plans
 * that it is about to score, of which it takes the scores that it is given; returns the advice.
 */
export function* advise(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  conditions: Conditions,
): Shared<AdviceProgress, Advice, Plan[], readonly (Score | undefined)[]> {
  const analysis = new AnalysisContext(shipped(app, plan).snapshot, plan, conditions);
  const compilations = new Compilations(app, model);
  const scorer = new Scorer(app, model, conditions, compilations);
  const before = scorer.score(plan);
  const some = new Part(app, model, conditions, compilations, plan);
  const near = NEAR.map((factor) => {
    const beside = new Scorer(app, model, atRate(conditions, factor), compilations);
    return { beside, was: beside.score(plan).cost };
  });
  /** A small change can come from how packets happen to fall: its mean over nearly the same links counts. */
  const around = (remedy: Remedy, own: number): number => {
    const tried = planWith(plan, remedy);
    const all = near.map(({ beside, was }) => beside.score(tried).cost - was);
    return (own + all.reduce((sum, c) => sum + c, 0)) / (all.length + 1);
  };
  const candidates = candidatesOf(analysis, before);
  const measured: Finding[] = [];
  let soFar: readonly Finding[] = [];
  const noGain: Advice['noGain'] = [];
  for (const [done, { remedies, ...candidate }] of candidates.entries()) {
    if (done % AT_ONCE === 0) {
      const next = candidates
        .slice(done, done + AT_ONCE)
        .flatMap((s) => s.remedies.map((remedy) => planWith(plan, remedy)));
      const given = yield { done, of: candidates.length, soFar, ahead: next };
      for (const [at, score] of (given ?? []).entries()) if (score) scorer.learn(next[at], score);
    }
    const { whose, seen } = candidate;
    let best: { remedy: Remedy; effect: Effect } | null = null;
    for (const remedy of remedies) {
      const tried = planWith(plan, remedy);
      const all = effectOf(before, scorer.score(tried));
      const effect = whose ? some.withEffect(all, whose, tried) : all;
      if (!best || (seen ? seenSum(effect) < seenSum(best.effect) : effect.cost < best.effect.cost))
        best = { remedy, effect };
      yield { done, of: candidates.length, soFar };
    }
    if (best) {
      const own = best.effect;
      const small = own.cost > -SMALL_GAIN && own.cost < SMALL_LOSS && !seen && !whose;
      const effect = small ? { ...own, cost: around(best.remedy, own.cost) } : own;
      const helps = seen ? seenSum(effect) <= -LEAST_SEEN && effect.cost < SMALL_LOSS : effect.cost <= -LEAST_GAIN;
      if (helps) {
        measured.push(findingOf(candidate, best.remedy, effect, cautionsOf(app, plan, best.remedy)));
        soFar = [...measured].sort(bestFirst);
      } else noGain.push({ id: candidate.id, kind: candidate.kind, what: candidate.what, cost: effect.cost });
    }
    yield { done: done + 1, of: candidates.length, soFar };
  }
  measured.sort(bestFirst);
  const findings = withoutTwins(app, plan, measured);
  const at = { done: candidates.length, of: candidates.length, soFar: findings };
  const taken = yield* addUp(findings, plan, at, (tried) => scorer.score(tried).cost - before.cost);
  const late = yield* payingAfter(app, taken, candidates, noGain, scorer);
  yield* addUp(late, taken, at, (tried) => scorer.score(tried).cost - before.cost);
  const open = noGain.filter((n) => !late.some((f) => f.id === n.id));
  const hidden = yield* payingElsewhere(
    app,
    plan,
    { candidates, open, before, conditions, scorer },
    (link) => new Scorer(app, model, { ...conditions, link }, compilations),
  );
  const idle = open.filter((n) => !hidden.some((f) => f.id === n.id));
  return { findings: [...findings, ...late, ...hidden], facts: factsOf(app, plan), noGain: idle, before };
}

function findingOf(
  candidate: Omit<CandidateFinding, 'remedies'>,
  remedy: Remedy,
  effect: Effect,
  cautions: string[],
): Finding {
  return { ...candidate, remedy, effect, cautions, together: null, basis: { on: 'the plan' } };
}

const bestFirst = (a: Finding, b: Finding) => a.effect.cost - b.effect.cost || (a.id < b.id ? -1 : 1);

/** Says of each finding what it saves together with those before it. `cost`: what a plan changes for all visits. */
function* addUp(
  findings: Finding[],
  plan: Plan,
  at: AdviceProgress,
  cost: (tried: Plan) => number,
): Generator<AdviceProgress, Plan> {
  const aside = new Set(plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [d.finding] : [])));
  let taken = plan;
  for (const finding of findings) {
    if (finding.seen || finding.cautions.length > 0 || aside.has(finding.id)) continue;
    taken = planWith(taken, finding.remedy);
    finding.together = cost(taken);
    yield at;
  }
  return taken;
}

/** Part of the visits: what a change does for them, weighed into what it does for all. */
class Part {
  private readonly scorers = new Map<NonNullable<CandidateFinding['whose']>, { scorer: Scorer; before: Score }>();

  constructor(
    private readonly app: Snapshot,
    private readonly model: VisitorModel,
    private readonly conditions: Conditions,
    private readonly compilations: Compilations,
    private readonly plan: Plan,
  ) {}

  withEffect(all: Effect, whose: NonNullable<CandidateFinding['whose']>, tried: Plan): Effect {
    const { returning, deployed, dataSaver } = this.model;
    const share = whose === 'data savers' ? dataSaver : returning * deployed;
    if (share === 0) return all;
    const { scorer, before } = this.scorerFor(whose);
    const own = effectOf(before, scorer.score(tried));
    return {
      ...own,
      cost: share * own.cost + (1 - share) * all.cost,
      waste: share * own.waste + (1 - share) * all.waste,
    };
  }

  private scorerFor(whose: NonNullable<CandidateFinding['whose']>): { scorer: Scorer; before: Score } {
    let cached = this.scorers.get(whose);
    if (!cached) {
      const { conditions, app, model, compilations } = this;
      const under: Conditions =
        whose === 'data savers'
          ? { ...conditions, device: { ...conditions.device, dataSaver: true } }
          : { ...conditions, cache: 'deployed' };
      const scorer = new Scorer(app, model, under, compilations);
      cached = { scorer, before: scorer.score(this.plan) };
      this.scorers.set(whose, cached);
    }
    return cached;
  }
}

function atRate(conditions: Conditions, factor: number): Conditions {
  const { link } = conditions;
  return { ...conditions, link: { ...link, downKbps: link.downKbps * factor } };
}

/** Findings, the best first, without those that mostly take the same code out of the starts as a better one. */
function withoutTwins(app: Snapshot, plan: Plan, findings: Finding[]): Finding[] {
  const { snapshot } = shipped(app, plan);
  const index = graphIndex(snapshot);
  const startsUnder = (p: Plan) => {
    const reacher = new Reacher(index, effectivePlan(snapshot, p).deferred);
    return snapshot.routes.map((r) => new Set(reacher.from(startModules(snapshot, r))));
  };
  const before = startsUnder(plan);
  const count = snapshot.modules.length;
  const weigh = (places: Iterable<number>) => {
    let sum = 0;
    for (const at of places) sum += snapshot.modules[at % count].bytes.minified;
    return sum;
  };
  const kept: { finding: Finding; left: Set<number> }[] = [];
  for (const finding of findings) {
    const detaches = finding.remedy.decisions.some((d) => d.kind === 'detach');
    const after = detaches ? startsUnder(planWith(plan, finding.remedy)) : before;
    // The same code out of two starts is two things to do.
    const left = new Set(
      before.flatMap((start, r) => [...start].filter((m) => !after[r].has(m)).map((m) => r * count + m)),
    );
    const own = weigh(left);
    const twin = kept.some((k) => {
      const common = weigh([...left].filter((m) => k.left.has(m)));
      return own > 0 && k.left.size > 0 && common >= SAME * Math.min(own, weigh(k.left));
    });
    if (!twin) kept.push({ finding, left });
  }
  return kept.map((k) => k.finding);
}
