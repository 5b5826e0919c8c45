import { Reacher } from '../chunks/reach.ts';
import { startModules } from '../chunks/start-modules.ts';
import { planWith } from '../plan/decisions.ts';
import { effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import { shipped, troublesOf } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Shared } from '../steps.ts';
import { Compilations } from './compiled.ts';
import { factsOf } from './facts.ts';
import { landingCost, Scorer } from './score.ts';
import { deferredFirstScreen, staircases } from './suspect/chain.ts';
import { keptBySharing, partsInStart, routeLeaks } from './suspect/code-in-start.ts';
import { scriptsInTheWay, smallFiles, unusedStyles } from './suspect/files.ts';
import { costlyHints, costlyLinks, hintsForSavers } from './suspect/given-hints.ts';
import { copies, mixedByDeploys, nestedSplits, twoVersions } from './suspect/graph.ts';
import { Grounds } from './suspect/grounds.ts';
import { dataAfterCode, foundLate, otherOrigins } from './suspect/late.ts';
import { onlyOnActs } from './suspect/on-acts.ts';
import { costlyDecisions } from './suspect/own-decisions.ts';
import { failsSilently, unsteadyScreen } from './suspect/seen.ts';
import { sheetsOfOthers } from './suspect/sheets.ts';
import type { Advice, Effect, Finding, RouteScore, Score, Seen, Suspicion, WaitScore, Way } from './types.ts';

/** Less than this, in expected ms per visit, is no gain. */
const LEAST_GAIN = 0.5;
/** Smaller effects are measured over links that differ a little in rate as well. */
const SMALL_GAIN = 12;
const SMALL_LOSS = 3;
const NEAR = [0.95, 1.05];
/** Seen less often than this per visit, it is no difference. */
const LEAST_SEEN = 0.001;
/** Two findings that take mostly the same code out of the starts are one. */
const SAME = 0.7;
/** Of so many suspicions the plans are told ahead. */
const AT_ONCE = 12;
/** Differences below this are not told, in ms. */
const TOLD = 0.5;

/** What is about imports and modules. */
const CUTS = [
  routeLeaks,
  partsInStart,
  keptBySharing,
  onlyOnActs,
  staircases,
  deferredFirstScreen,
  nestedSplits,
  twoVersions,
];

/** Everything that looks worth changing in an app under a plan, before it is measured. */
export function suspicionsOf(grounds: Grounds): Suspicion[] {
  const { output } = grounds.snapshot;
  // An output without sources in its maps has no imports that somebody could change.
  const cuts = output === null || output.files.some((f) => f.inside === 'sources') ? CUTS : [];
  return [
    ...cuts,
    foundLate,
    otherOrigins,
    dataAfterCode,
    scriptsInTheWay,
    unusedStyles,
    sheetsOfOthers,
    smallFiles,
    copies,
    mixedByDeploys,
    costlyHints,
    costlyLinks,
    hintsForSavers,
    costlyDecisions,
  ].flatMap((suspect) => suspect(grounds));
}

/**
 * Advice for an app under a plan: every suspicion is tried on a copy of the plan, in each of its ways, and measured by
 * simulation over all landings, moves and acts. What doesn't help is no advice but listed as tried; of several that take
 * the same code out of the starts only the best remains. Yields after each way, and now and then the plans that it is about
 * to score, of which it takes the scores that it is given; returns the advice.
 */
export function* advise(
  app: Snapshot,
  plan: Plan,
  model: VisitorModel,
  conditions: Conditions,
): Shared<{ done: number; of: number }, Advice, Plan[], readonly (Score | undefined)[]> {
  const grounds = new Grounds(shipped(app, plan).snapshot, plan, conditions);
  const compilations = new Compilations(app, model);
  const scorer = new Scorer(app, model, conditions, compilations);
  const before = scorer.score(plan);
  const some = new Part(app, model, conditions, compilations, plan);
  const near = NEAR.map((factor) => {
    const beside = new Scorer(app, model, atRate(conditions, factor), compilations);
    return { beside, was: beside.score(plan).cost };
  });
  /** A small change can come from how packets happen to fall: its mean over nearly the same links counts. */
  const around = (way: Way, own: number): number => {
    const tried = planWith(plan, way);
    const all = near.map(({ beside, was }) => beside.score(tried).cost - was);
    return (own + all.reduce((sum, c) => sum + c, 0)) / (all.length + 1);
  };
  const suspicions = [...suspicionsOf(grounds), ...unsteadyScreen(grounds, before), ...failsSilently(grounds)];
  const measured: Finding[] = [];
  const noGain: Advice['noGain'] = [];
  for (const [done, { ways, ...suspicion }] of suspicions.entries()) {
    if (done % AT_ONCE === 0) {
      const next = suspicions.slice(done, done + AT_ONCE).flatMap((s) => s.ways.map((way) => planWith(plan, way)));
      const given = yield { done, of: suspicions.length, ahead: next };
      for (const [at, score] of (given ?? []).entries()) if (score) scorer.learn(next[at], score);
    }
    const { whose, seen } = suspicion;
    let best: { way: Way; effect: Effect } | null = null;
    for (const way of ways) {
      const tried = planWith(plan, way);
      const all = effectOf(before, scorer.score(tried));
      const effect = whose ? some.withEffect(all, whose, tried) : all;
      if (!best || (seen ? seenSum(effect) < seenSum(best.effect) : effect.cost < best.effect.cost))
        best = { way, effect };
      yield { done, of: suspicions.length };
    }
    if (best) {
      const own = best.effect;
      const small = own.cost > -SMALL_GAIN && own.cost < SMALL_LOSS && !seen && !whose;
      const effect = small ? { ...own, cost: around(best.way, own.cost) } : own;
      const helps = seen ? seenSum(effect) <= -LEAST_SEEN && effect.cost < SMALL_LOSS : effect.cost <= -LEAST_GAIN;
      if (helps) measured.push({ ...suspicion, way: best.way, effect, cautions: cautionsOf(app, plan, best.way) });
      else noGain.push({ id: suspicion.id, kind: suspicion.kind, what: suspicion.what, cost: effect.cost });
    }
    yield { done: done + 1, of: suspicions.length };
  }
  measured.sort((a, b) => a.effect.cost - b.effect.cost || (a.id < b.id ? -1 : 1));
  return { findings: withoutTwins(app, plan, measured), facts: factsOf(app, plan), noGain, before };
}

/** Part of the visits: what a change does for them, weighed into what it does for all. */
class Part {
  private readonly scorers = new Map<NonNullable<Suspicion['whose']>, { scorer: Scorer; before: Score }>();

  constructor(
    private readonly app: Snapshot,
    private readonly model: VisitorModel,
    private readonly conditions: Conditions,
    private readonly compilations: Compilations,
    private readonly plan: Plan,
  ) {}

  withEffect(all: Effect, whose: NonNullable<Suspicion['whose']>, tried: Plan): Effect {
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

  private scorerFor(whose: NonNullable<Suspicion['whose']>): { scorer: Scorer; before: Score } {
    let known = this.scorers.get(whose);
    if (!known) {
      const { conditions, app, model, compilations } = this;
      const under: Conditions =
        whose === 'data savers'
          ? { ...conditions, device: { ...conditions.device, dataSaver: true } }
          : { ...conditions, cache: 'deployed' };
      const scorer = new Scorer(app, model, under, compilations);
      known = { scorer, before: scorer.score(this.plan) };
      this.scorers.set(whose, known);
    }
    return known;
  }
}

/** Detachments of a way that take more than detaching, in words. */
function cautionsOf(app: Snapshot, plan: Plan, way: Way): string[] {
  const blockedBy = (p: Plan) =>
    troublesOf(app, p).blocked.map((b) => `${b.import} needs it while it starts: ${b.reason} (line ${b.line})`);
  const before = new Set(blockedBy(plan));
  return [...new Set(blockedBy(planWith(plan, way)))].filter((words) => !before.has(words));
}

function atRate(conditions: Conditions, factor: number): Conditions {
  const { link } = conditions;
  return { ...conditions, link: { ...link, downKbps: link.downKbps * factor } };
}

export function effectOf(before: Score, after: Score): Effect {
  const was = new Map(before.routes.map((r) => [r.pattern, r]));
  const waited = new Map(before.waits.map((w) => [w.key, w]));
  const routes = after.routes
    .map((now) => {
      const old = was.get(now.pattern)!;
      return {
        pattern: now.pattern,
        share: now.share,
        firstContent: now.firstContent - old.firstContent,
        interactive: now.interactive - old.interactive,
        startBytes: now.startBytes - old.startBytes,
        otherScripts: now.otherScripts - old.otherScripts,
        alsoFetched: now.alsoFetched - old.alsoFetched,
        hops: now.hops - old.hops,
        cost: (landingCost(now) - landingCost(old)) * now.share,
      };
    })
    .filter((r) => Math.abs(r.interactive) > TOLD || Math.abs(r.firstContent) > TOLD || r.startBytes !== 0)
    .sort((a, b) => Math.abs(b.cost) - Math.abs(a.cost))
    .map(({ cost: _, ...r }) => r);
  const waits = after.waits
    .map(({ key, route, name, wait }) => ({ key, route, name, change: wait - (waited.get(key)?.wait ?? wait) }))
    .filter((w) => Math.abs(w.change) > TOLD)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change));
  const waiting = (score: Score) => score.waits.reduce((sum, w) => sum + w.perVisit * w.wait, 0);
  return {
    cost: after.cost - before.cost,
    waste: after.waste - before.waste,
    seen: seenChange(before, after),
    routes,
    perVisit: waiting(after) - waiting(before),
    waits,
  };
}

function seenChange(before: Score, after: Score): Seen {
  const moved = (routes: readonly RouteScore[]) => routes.reduce((sum, r) => sum + r.share * r.moves, 0);
  const often = (waits: readonly WaitScore[], what: 'flashes' | 'silent') =>
    waits.reduce((sum, w) => sum + (w[what] ? w.perVisit : 0), 0);
  return {
    moves: moved(after.routes) - moved(before.routes),
    flashes: often(after.waits, 'flashes') - often(before.waits, 'flashes'),
    silent: often(after.waits, 'silent') - often(before.waits, 'silent'),
  };
}

/** What goes wrong to be seen, all of it; the worst of the three counts if any grows. */
function seenSum({ seen: { moves, flashes, silent } }: Effect): number {
  return Math.max(moves, flashes, silent) > LEAST_SEEN ? Number.POSITIVE_INFINITY : moves + flashes + silent;
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
  const weigh = (modules: Iterable<number>) => {
    let sum = 0;
    for (const m of modules) sum += snapshot.modules[m].bytes.minified;
    return sum;
  };
  const kept: { finding: Finding; left: Set<number> }[] = [];
  for (const finding of findings) {
    const detaches = finding.way.decisions.some((d) => d.kind === 'detach');
    const after = detaches ? startsUnder(planWith(plan, finding.way)) : before;
    const left = new Set(before.flatMap((start, r) => [...start].filter((m) => !after[r].has(m))));
    const own = weigh(left);
    const twin = kept.some((k) => {
      const common = weigh([...left].filter((m) => k.left.has(m)));
      return own > 0 && k.left.size > 0 && common >= SAME * Math.min(own, weigh(k.left));
    });
    if (!twin) kept.push({ finding, left });
  }
  return kept.map((k) => k.finding);
}
